<?php

declare(strict_types=1);

namespace Plinth\Server\Escape;

use Plinth\Core\Escape\EscapePlan;
use Plinth\Core\Escape\EscapeRoute;
use Plinth\Core\Escape\RoomEscape;
use Plinth\Server\Building\BuildingPlan;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Symfony\Contracts\Cache\CacheInterface;

/** Ways out of a building, from the worst place of every room of it. */
final readonly class EscapeController
{
    public function __construct(private ProjectAccess $access, private BuildingPlan $building, private CacheInterface $cache)
    {
    }

    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/escape', methods: ['GET'])]
    public function show(Uuid $project): Response
    {
        $head = $this->access->project($project)->head();

        return new JsonResponse(['rooms' => $this->cache->get(
            \sprintf('escape.%s.%d', $project->toRfc4122(), $head),
            fn (): array => array_map(self::room(...), (new EscapePlan($this->building->of($project)))->rooms()),
        )]);
    }

    /** @return array<string, mixed> */
    private static function room(RoomEscape $room): array
    {
        return [
            'storey' => $room->storey,
            'room' => $room->region->room?->id,
            'name' => $room->region->room->name ?? '',
            'at' => $room->region->label,
            'toExit' => self::route($room->toExit),
            'toFinal' => self::route($room->toFinal),
            'second' => null === $room->second ? null : [
                'singleMm' => $room->second->singleMm, 'degrees' => $room->second->degrees, 'route' => self::route($room->second->route),
            ],
        ];
    }

    /** @return array<string, mixed>|null */
    private static function route(?EscapeRoute $route): ?array
    {
        return null === $route ? null : [
            'mm' => $route->mm,
            'places' => array_map(static fn (array $p): array => ['storey' => $p[0], 'at' => $p[1]], $route->places),
            'doors' => $route->doors,
            'narrowestMm' => $route->narrowestMm,
            'against' => $route->against,
            'stairs' => $route->stairs,
            'exit' => $route->exit,
        ];
    }
}
