<?php

declare(strict_types=1);

namespace Plinth\Core\Elevation;

use Plinth\Core\Plan\Model\Plan;

/** What of a building's walls and openings stands on a side. */
final readonly class SideOpenings
{
    /**
     * @param list<SideOpening> $openings that are seen
     * @param list<SideWall> $walls that run along it, seen or not
     */
    private function __construct(public array $openings, public array $walls)
    {
    }

    /** @param list<string> $seen ids of openings of which something is seen from there */
    public static function of(Plan $plan, SideLine $line, array $seen): self
    {
        $isSeen = array_fill_keys($seen, true);
        [$openings, $walls] = [[], []];
        foreach ($plan->storeys as $storey) {
            [$floor, $ceiling] = [$storey->elevation, $storey->elevation + $storey->height];
            $byId = [];
            foreach ($storey->walls as $wall) {
                $along = SideWall::of($wall, $line, $floor, $ceiling);
                if (null !== $along) {
                    $walls[] = $byId[$wall->id] = $along;
                }
            }
            foreach ($storey->openings as $opening) {
                if (isset($isSeen[$opening->id], $byId[$opening->wall])) {
                    [$left, $right] = $byId[$opening->wall]->seen($opening->offset, $opening->width);
                    $head = null === $opening->height ? $ceiling : $floor + $opening->sill + $opening->height;
                    $sill = $floor + $opening->sill;
                    $in = $byId[$opening->wall];
                    $openings[] = new SideOpening($opening->id, $left, $right, $sill, $head, $floor, $ceiling, $in);
                }
            }
        }

        return new self($openings, $walls);
    }
}
