<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation;

use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Network\Leak;

/** What follows from a storey's walls, openings and rooms. */
final readonly class DerivedStorey
{
    /** More than chords lie off their arcs. */
    private const OUT_MM = 0.5;

    /**
     * @param list<BodyOutline> $outlines
     * @param list<Region> $regions named ones and the rest
     * @param array<string, WallShape> $walls by id
     * @param array<string, non-empty-list<array{float, float}>> $openings cut-out of each opening in plan, by id
     * @param list<Leak> $leaks
     * @param list<Finding> $findings
     * @param array{grossFloor: float, netFloor: float, structure: float} $areasMm2 gross floor area, net floor area and area of structural
     *                                                                              elements (ISO 9836)
     */
    public function __construct(
        public string $id,
        public array $outlines,
        public array $regions,
        public array $walls,
        public array $openings,
        public array $leaks,
        public array $findings,
        public array $areasMm2,
    ) {
    }

    /**
     * What is cut out of walls where they are drawn: openings that reach a little out of either face, so that nothing of a hair's breadth
     * is left between chords of an opening and those of its wall.
     *
     * @param string|null $wall of this one alone
     *
     * @return list<non-empty-list<array{float, float}>> rings, counter-clockwise, mm
     */
    public function cutOuts(?string $wall = null): array
    {
        $rings = [];
        foreach (null === $wall ? $this->openings : $this->walls[$wall]->openings ?? [] as $opening) {
            $out = $opening;
            foreach ($opening as $i => [$x, $y]) {
                [$ox, $oy] = $opening[\count($opening) - 1 - $i];
                $long = max(1e-9, hypot($x - $ox, $y - $oy));
                $out[$i] = [$x + self::OUT_MM * ($x - $ox) / $long, $y + self::OUT_MM * ($y - $oy) / $long];
            }
            $rings[] = Polygon::area($out) < 0.0 ? array_reverse($out) : $out;
        }

        return $rings;
    }
}
