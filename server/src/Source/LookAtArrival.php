<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Server\Account\User;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Failed;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\Lane;
use Plinth\Server\Job\PutsBack;
use Plinth\Server\Source\DropIn\DropInFolder;
use Plinth\Server\Source\Reading\Budget;

/** Looks at a file that was sent, and takes it into its project or says why not. */
final readonly class LookAtArrival implements PutsBack
{
    /** for looking at one file, s: two hundred sheets of a TIFF take half of it */
    private const BUDGET = 60.0;

    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $connection,
        private FileStore $files,
        private BringIn $bringIn,
        private DropInFolder $dropIn,
    ) {
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
        if (null === $arrival || null === $user || null !== $arrival->revision) {
            return;
        }
        $path = $this->files->arrival($arrival->key()) ?? throw new Failed(
            'The file that was sent is not in the store of files any more. Bring it in again.',
            'broken-upload',
        );
        try {
            $change = $this->bringIn->take(
                $arrival->project,
                $user,
                Delivery::from($path, $arrival->name, $arrival->delivery),
                $arrival->id,
                new Budget($attempt, self::BUDGET),
            );
        } catch (UnreadableDocument $e) {
            throw new Failed($e->getMessage(), 'unreadable');
        }
        $this->connection->executeStatement(
            'UPDATE arrival SET revision = ? WHERE project = ? AND id = ?',
            [$change->revision(), ...$job->about->binary()],
        );
        $this->files->forgetArrival($job->about);
    }

    /** What came out of the drop-in folder goes back to it. */
    public function putBack(Job $job): void
    {
        $dropped = $this->connection->fetchOne('SELECT dropped_as FROM arrival WHERE project = ? AND id = ?', $job->about->binary());
        $path = $this->files->arrival($job->about);
        if (\is_string($dropped) && '' !== $dropped && null !== $path) {
            $this->dropIn->giveBack($path, $dropped);
        }
        $this->files->forgetArrival($job->about);
    }
}
