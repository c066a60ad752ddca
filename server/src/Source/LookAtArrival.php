<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Server\Account\User;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\JobKind;
use Plinth\Server\Job\Lane;
use Plinth\Server\Job\TryAgain;
use Plinth\Server\Source\DropIn\DropInFolder;
use Plinth\Server\Source\Reading\PictureFailure;

/** Looks at a file that was sent, and takes it into its project or says why not. */
final readonly class LookAtArrival implements JobKind
{
    /** for looking at one file, s: two hundred sheets of a TIFF take half of it */
    private const BUDGET = 60.0;

    public function __construct(private EntityManagerInterface $entities, private Connection $connection, private FileStore $files, private BringIn $bringIn, private DropInFolder $dropIn)
    {
    }

    public static function name(): string
    {
        return 'look-at-arrival';
    }

    public static function lane(): Lane
    {
        return Lane::Quick;
    }

    public function run(Job $job, Attempt $attempt): void
    {
        $arrival = $this->entities->find(Arrival::class, $job->about->criteria());
        $user = null === $arrival ? null : $this->entities->find(User::class, $arrival->account);
        if (null === $arrival || null === $user || ArrivalState::Waiting !== $arrival->state) {
            return;
        }
        $path = $this->files->arrival($arrival->key());
        if (null === $path) {
            $this->refuse($job, 422, 'broken-upload', 'The file that was sent is not in the store of files any more. Bring it in again.', 'file');

            return;
        }
        try {
            $change = $this->bringIn->take($arrival->project, $user, Delivery::from($path, $arrival->name, $arrival->delivery), $arrival->id, self::mayGoOn($attempt));
        } catch (PictureFailure $e) {
            throw TryAgain::after($e->getMessage());
        } catch (Refusal $e) {
            $this->refuse($job, $e->status, $e->reason, $e->getMessage(), $e->at);

            return;
        } catch (UnreadableDocument $e) {
            $this->refuse($job, 422, 'unreadable', $e->getMessage(), $e->at);

            return;
        }
        $this->connection->executeStatement('UPDATE arrival SET state = ?, revision = ? WHERE project = ? AND id = ?', [ArrivalState::Taken->value, $change->revision(), ...$job->about->binary()]);
        $this->files->forgetArrival($job->about);
    }

    /** @return callable(): bool */
    private static function mayGoOn(Attempt $attempt): callable
    {
        $until = microtime(true) + self::BUDGET;

        return static function () use ($attempt, $until): bool {
            $attempt->goesOn();

            return microtime(true) < $until ? true : throw PictureFailure::tooLong(self::BUDGET);
        };
    }

    public function giveUp(Job $job, string $words): void
    {
        $this->refuse($job, 422, 'unreadable-picture', $words, 'file');
    }

    private function refuse(Job $job, int $status, string $code, string $words, string $at): void
    {
        $this->connection->executeStatement('UPDATE arrival SET state = ?, refusal = ? WHERE project = ? AND id = ?', [ArrivalState::Refused->value, json_encode(['status' => $status, 'code' => $code, 'message' => $words, 'at' => $at], \JSON_THROW_ON_ERROR), ...$job->about->binary()]);
        $dropped = $this->connection->fetchOne('SELECT dropped_as FROM arrival WHERE project = ? AND id = ?', $job->about->binary());
        $path = $this->files->arrival($job->about);
        if (\is_string($dropped) && '' !== $dropped && null !== $path) {
            $this->dropIn->giveBack($path, $dropped);
        }
        $this->files->forgetArrival($job->about);
    }
}
