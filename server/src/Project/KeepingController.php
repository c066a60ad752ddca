<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\RowId;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Psr\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** Keeping house: projects copied, put into the bin, taken out of it, and removed for good. */
#[Route('/api/projects/{project}')]
final readonly class KeepingController
{
    /** @param iterable<Copied> $copied */
    public function __construct(
        private ProjectAccess $access,
        private Projects $projects,
        private EntityManagerInterface $entities,
        private ClockInterface $clock,
        #[AutowireIterator(Copied::class)] private iterable $copied,
    ) {
    }

    /** A project of one's own with all that is in this one. */
    #[Needs(Who::Reader)]
    #[Route('/copies', methods: ['POST'])]
    public function copy(Uuid $project, Request $request): Response
    {
        $body = JsonValue::parse($request->getContent())->object(['id', 'name']);
        $id = RowValues::uuid($body->get('id'));
        $name = trim($body->get('name')->text(120));
        if ('' === $name) {
            throw Refusal::invalid('no-name', 'A copy needs a name.', 'name');
        }
        $user = $this->access->user();
        $this->entities->wrapInTransaction(function () use ($project, $id, $name, $user): void {
            // Nobody changes it meanwhile.
            $this->entities->find(Project::class, (new RowId($project, $project))->criteria(), LockMode::PESSIMISTIC_WRITE);
            $there = $this->entities->find(Project::class, (new RowId($id, $id))->criteria());
            if (null === $there) {
                $this->projects->copy($project, $id, $user, $name);
                foreach ($this->copied as $each) {
                    $each->copied($id);
                }
            } elseif (!$there->belongsTo($user)) {
                throw Refusal::invalid('id-taken', 'This id is taken: make another one.', 'id');
            }
        });

        return new JsonResponse(['id' => $id->toRfc4122()]);
    }

    #[Needs(Who::Owner, inBin: true)]
    #[Route('/bin', methods: ['PUT'])]
    public function bin(Uuid $project): Response
    {
        $row = $this->access->project($project);
        $row->bin($row->binned() ?? $this->clock->now()->setTimezone(new \DateTimeZone('UTC')));
        $this->entities->flush();

        return $this->told($row);
    }

    #[Needs(Who::Owner, inBin: true)]
    #[Route('/bin', methods: ['DELETE'])]
    public function putBack(Uuid $project): Response
    {
        $row = $this->access->project($project);
        $row->bin(null);
        $this->entities->flush();

        return $this->told($row);
    }

    /** For good; only what lies in the bin. */
    #[Needs(Who::Owner, inBin: true)]
    #[Route('', methods: ['DELETE'])]
    public function remove(Uuid $project): Response
    {
        if (null === $this->access->project($project)->binned()) {
            throw Refusal::conflict('not-in-bin', 'A project is removed for good out of the bin only: put it there first.');
        }
        $this->entities->wrapInTransaction(fn () => $this->projects->remove($project));

        return new JsonResponse(['id' => $project->toRfc4122()]);
    }

    private function told(Project $project): Response
    {
        return new JsonResponse(['binned' => $project->binned()?->format(\DATE_ATOM)]);
    }
}
