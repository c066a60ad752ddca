<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\PitchedRoof;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Sweep;
use Plinth\Core\Plan\Model\SweepAlong;
use Plinth\Core\Roof\Exception\UnbuildableRoof;
use Plinth\Core\Sweeping\Exception\UnbuildableSweep;

/**
 * Where a profile is taken along.
 *
 * @internal
 *
 * @phpstan-type Path array{list<Point>, list<float>, bool, float}
 */
final class SweepPaths
{
    /**
     * @return list<Path> corners, rises, whether it closes, and how high the profile's zero lies, mm
     *
     * @throws UnbuildableSweep where there is none
     * @throws UnbuildableRoof
     */
    public static function of(Sweep $sweep, Storey $storey, Derivation $derivation): array
    {
        $level = $storey->elevation + $sweep->level;
        $paths = [];
        if (SweepAlong::Walls === $sweep->along) {
            foreach ($derivation->outlines() as $outline) {
                $paths[] = [array_map(static fn (array $p): Point => new Point(...$p), $outline->outer), [], true, $level];
            }
        } elseif (SweepAlong::Eaves === $sweep->along) {
            foreach ($storey->roofs as $roof) {
                array_push($paths, ...$roof->id === $sweep->of ? self::eaves($roof, $level) : []);
            }
        } elseif ([] !== $sweep->path) {
            $paths[] = [$sweep->path, $sweep->rises, $sweep->closed, null === $sweep->face ? $level : $sweep->level];
        }

        return [] === $paths ? throw UnbuildableSweep::hasNoPath() : $paths;
    }

    /**
     * The lower edge of a roof's underside, along its eaves and not its gables.
     *
     * @return list<Path>
     *
     * @throws UnbuildableRoof
     */
    private static function eaves(PitchedRoof $roof, float $level): array
    {
        $n = \count($roof->corners);
        $order = range(0, $n - 1);
        $corners = $roof->corners;
        if ((new Contour($corners))->area() < 0.0) {
            // Counter-clockwise; the edge from each corner keeps what rises over it.
            $corners = array_reverse($corners);
            $order = array_map(static fn (int $i): int => (2 * $n - 2 - $i) % $n, $order);
        }
        $reached = Outward::moved($corners, array_map(static fn (int $i): float => $roof->overhangs[$i], $order));
        $isEaves = array_map(static fn (int $i): bool => null !== $roof->pitches[$i], $order);
        if (!\in_array(false, $isEaves, true)) {
            return [[$reached, [], true, $level + self::lower($roof, $order[0])]];
        }
        $paths = [];
        foreach ($isEaves as $edge => $isOne) {
            if (!$isOne || $isEaves[($edge + $n - 1) % $n]) {
                continue;
            }
            $chain = [$reached[$edge]];
            for ($k = $edge; $isEaves[$k % $n]; ++$k) {
                $chain[] = $reached[($k + 1) % $n];
            }
            $paths[] = [$chain, [], false, $level + self::lower($roof, $order[$edge])];
        }

        return $paths;
    }

    /** @return float mm of the underside's edge above the storey's level */
    private static function lower(PitchedRoof $roof, int $edge): float
    {
        return $roof->eaves - $roof->overhangs[$edge] * tan(deg2rad($roof->pitches[$edge] ?? 0.0));
    }
}
