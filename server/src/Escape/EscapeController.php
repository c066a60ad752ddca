<?php

declare(strict_types=1);

namespace Plinth\Server\Escape;

use Plinth\Core\Exchange\FireDocument\FireWriter;
use Plinth\Server\Building\BuildingPlan;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Symfony\Contracts\Cache\CacheInterface;

/** Ways out of a building, from the worst place of every room of it, and what is enclosed by classes of fire resistance. */
final readonly class EscapeController
{
    /** of regions that are asked for by themselves: those that an edit has touched */
    private const MOST_ALONE = 20;

    public function __construct(private ProjectAccess $access, private BuildingPlan $building, private CacheInterface $cache)
    {
    }

    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/escape', methods: ['GET'])]
    public function show(Uuid $project, Request $request): Response
    {
        $regions = $request->query->getString('regions');
        if ('' !== $regions) {
            $this->access->project($project);
            $only = explode(',', $regions);
            if (\count($only) > self::MOST_ALONE) {
                throw Refusal::invalid('too-many', \sprintf('Ask for %d at most, or for all.', self::MOST_ALONE), 'regions');
            }

            return new JsonResponse((new FireWriter($this->building->of($project)))->escape($only));
        }

        return $this->kept('escape', $project, static fn (FireWriter $fire): array => $fire->escape());
    }

    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/enclosures', methods: ['GET'])]
    public function enclosures(Uuid $project): Response
    {
        return $this->kept('enclosures', $project, static fn (FireWriter $fire): array => $fire->enclosures());
    }

    /** @param callable(FireWriter): array<string, mixed> $write */
    private function kept(string $what, Uuid $project, callable $write): Response
    {
        $head = $this->access->project($project)->head();

        return new JsonResponse($this->cache->get(
            \sprintf('%s.%s.%d', $what, $project->toRfc4122(), $head),
            fn (): array => $write(new FireWriter($this->building->of($project))),
        ));
    }
}
