<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Plausibility\Doubt;
use Plinth\Core\Plan\Plausibility\Plausible;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\Storey;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Symfony\Contracts\Cache\CacheInterface;

/** What a practitioner would look at twice on a storey; what somebody has said to be so is told apart by the clients. */
final readonly class PlausibleController
{
    public function __construct(private ProjectAccess $access, private PlanKeeper $plans, private CacheInterface $cache)
    {
    }

    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/storeys/{id}/plausible', methods: ['GET'])]
    public function show(Uuid $project, Uuid $id): Response
    {
        $row = $this->access->row(Storey::class, $project, $id);
        $doubts = $this->cache->get(
            \sprintf('plausible.%s.%s.%d', $project->toRfc4122(), $id->toRfc4122(), $this->access->project($project)->head()),
            function () use ($row): array {
                $storey = $this->plans->load($row->key());

                return array_map(
                    static fn (Doubt $d): array => ['code' => $d->code, 'thing' => $d->thing, 'at' => $d->at, 'message' => $d->message],
                    Plausible::of($storey, Derivation::of($storey)),
                );
            },
        );

        return new JsonResponse(['standing' => Doubt::STANDING, 'doubts' => $doubts]);
    }
}
