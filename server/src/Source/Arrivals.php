<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Account\User;
use Plinth\Server\Change\RowId;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Job\Jobs;
use Plinth\Server\Job\JobState;
use Plinth\Server\Source\DropIn\DropInFolder;
use Plinth\Server\Source\Reading\Format;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Uid\Uuid;

/**
 * Files that were sent: put aside as they are, and looked at by a worker. Only a glance at the first bytes is taken while the sender
 * waits.
 */
final readonly class Arrivals
{
    private const KEPT_SECONDS = 604_800;

    public function __construct(
        private EntityManagerInterface $entities,
        private FileStore $files,
        private DropInFolder $dropIn,
        private Jobs $jobs,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param Uuid $id of the change that it is to be; sent again, the first one counts, unless it was refused
     *
     * @throws Refusal in words for whoever chose the file
     */
    public function receive(Uuid $project, Uuid $id, User $user, Delivery $delivery): Arrival
    {
        $known = $this->known($project, $id, $user);
        if (null !== $known) {
            return $known;
        }
        $bytes = (int) filesize($delivery->path);
        if ($bytes > BringIn::MOST_BYTES) {
            throw Refusal::tooLarge('This file is larger than 200 MB. Scan it at a lower resolution, or save it as JPEG.', 'file');
        }
        if (0 === $bytes) {
            throw Refusal::invalid('empty-file', 'This file is empty. Copy or scan it again.', 'file');
        }
        if (null === Format::ofContent($delivery->path)) {
            throw Refusal::invalid(
                'not-a-picture',
                'This is no picture, PDF, SVG or DXF that can be read, whatever its name says. Save it as PNG, JPEG, TIFF or PDF.',
                'file',
            );
        }
        $this->files->refuseWithoutRoom($bytes);
        if (!$this->files->receive($delivery->path, new RowId($project, $id))) {
            throw Refusal::noRoom();
        }

        return $this->wait($project, $id, $user, $delivery, '');
    }

    /** @throws Refusal where somebody else has taken it */
    public function fromDropIn(Uuid $project, Uuid $id, User $user, string $name, Delivery $delivery): Arrival
    {
        $known = $this->known($project, $id, $user);
        if (null !== $known) {
            return $known;
        }
        $this->files->refuseWithoutRoom((int) @filesize($delivery->path));
        $this->dropIn->take($name, fn (string $path): bool => $this->files->receive($path, new RowId($project, $id)));

        return $this->wait($project, $id, $user, $delivery, $name);
    }

    public function of(RowId $id): Arrival
    {
        return $this->entities->find(Arrival::class, $id->criteria()) ?? throw Refusal::notFound();
    }

    public function answer(Arrival $arrival, int $status = 200): Response
    {
        // How far it is comes first: what is done has its revision by then.
        $progress = $this->jobs->of(LookAtArrival::class, $arrival->key());
        $this->entities->refresh($arrival);

        return new JsonResponse(['arrival' => [
            'id' => $arrival->id->toRfc4122(), 'name' => $arrival->name, 'revision' => $arrival->revision, 'progress' => $progress->describe(),
        ]], $status);
    }

    private function known(Uuid $project, Uuid $id, User $user): ?Arrival
    {
        $known = $this->entities->find(Arrival::class, (new RowId($project, $id))->criteria());
        if (null !== $known && !$known->account->equals($user->id())) {
            throw Refusal::conflict('id-taken', 'This id is in use already: make a new one.', 'change');
        }

        return null !== $known && JobState::Failed === $this->jobs->of(LookAtArrival::class, $known->key())->state ? null : $known;
    }

    private function wait(Uuid $project, Uuid $id, User $user, Delivery $delivery, string $droppedAs): Arrival
    {
        $now = $this->clock->now()->getTimestamp();

        return $this->entities->wrapInTransaction(function () use ($project, $id, $user, $delivery, $droppedAs, $now): Arrival {
            $this->entities->getConnection()->executeStatement(
                'DELETE FROM arrival WHERE (project = ? AND id = ?) OR at < ?',
                [$project->toBinary(), $id->toBinary(), $now - self::KEPT_SECONDS],
            );
            $arrival = new Arrival(
                $project,
                $id,
                $user->id(),
                mb_substr(mb_scrub($delivery->name), 0, 255),
                $delivery->toArray(),
                $droppedAs,
                $now,
            );
            $this->entities->persist($arrival);
            $this->entities->flush();
            $this->jobs->ask(LookAtArrival::class, $arrival->key());

            return $arrival;
        });
    }
}
