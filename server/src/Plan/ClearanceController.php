<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Site\Clearance;
use Plinth\Core\Site\Exception\UnusableBoundary;
use Plinth\Core\Site\Traverse;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\Storey;
use Plinth\Server\Site\Boundary;
use Plinth\Server\Site\Legs;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** How near what is built comes to each line of a boundary. */
final readonly class ClearanceController
{
    public function __construct(
        private ProjectAccess $access,
        private EntityManagerInterface $entities,
        private Legs $legs,
        private BuildingOutlines $outlines,
    ) {
    }

    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/boundaries/{id}/clearances', methods: ['GET'])]
    public function show(Uuid $project, Uuid $id): Response
    {
        $boundary = $this->access->row(Boundary::class, $project, $id);
        // Upper floors that lean out come nearer than the one below; what is only thought of counts for nothing.
        $storeys = $this->entities->getRepository(Storey::class)->findBy(
            ['project' => $boundary->project(), 'alternativeOf' => null],
            ['id' => 'ASC'],
        );
        try {
            $clearances = Clearance::of(
                Traverse::closed($this->legs->of($boundary), $boundary->from())->contour,
                array_merge(...array_map($this->outlines->of(...), $storeys)),
            );
        } catch (UnusableBoundary) {
            $clearances = []; // still being typed
        }

        return new JsonResponse(['clearances' => array_map(static fn (Clearance $c): array => [
            'mm' => $c->mm, 'building' => $c->building->toArray(), 'line' => $c->line->toArray(),
        ], $clearances)]);
    }
}
