<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Ink\Page\AlignedInk;
use Plinth\Core\Ink\Page\EdgePoints;
use Plinth\Core\Ink\Page\GreyRaster;

/**
 * Directions, modulo a right angle, in which a drawing has long straight edges.
 *
 * The first is the one that most edges have. Points of edges that lie one behind another along it are taken out, and what is left is
 * looked through degree by degree for edges as long as a wall: hatching, letters and the swings of doors have many in other directions,
 * but short ones, and on faint drawings grain turns the edges of one wing into the direction of another.
 *
 * @internal
 */
final class Directions
{
    /** degrees between two directions that are looked into: nearer ones find the same walls */
    private const APART = 8;
    /** directions that are looked into: each costs as much as the first */
    private const MOST = 4;
    /** degrees by which grain turns an edge */
    private const GRAIN = 10;
    /** mm of an edge that tells of a wall: the sides of a bay */
    private const LONG_MM = 750.0;
    /** mm of such edges that make a direction: of one short wall both faces */
    private const LEAST_MM = 2200.0;
    /** cells across an edge in which its points lie, and cells between two of them along it */
    private const WITHIN = [2.0, 4.0];
    /** degrees to either side of the first direction in which its own edges run, and steps */
    private const OWN = [-2.0, -1.5, -1.0, -0.5, 0.0, 0.5, 1.0, 1.5, 2.0];
    /** The raster is looked at in cells of so many of its own. */
    private const COARSE = 2;

    /**
     * By whole degrees modulo 90, and by a number of which those are what is left after dividing by 90: x, y, direction of the edge.
     *
     * @var array<int, array<int, array{float, float, float}>>
     */
    private array $points = [];

    private function __construct(EdgePoints $edges)
    {
        foreach ($edges->points as $k => [$x, $y, $lighter]) {
            $this->points[(int) fmod($lighter, 90.0)][90 * $k + (int) fmod($lighter, 90.0)] = [$x, $y, fmod($lighter + 90.0, 180.0)];
        }
    }

    /** @return non-empty-list<float> degrees from the direction of the raster's rows, −45 to 45, the first the strongest */
    public static function of(AlignedInk $ink): array
    {
        $raster = new GreyRaster($ink->columns, \count($ink->rows), implode('', $ink->rows));
        $edges = EdgePoints::of($raster->shrunk(self::COARSE));
        if (null === $edges) {
            return [0.0];
        }
        $all = new self($edges);
        $mm = $ink->cell * self::COARSE;
        $first = $edges->dominantDegrees();
        foreach (self::OWN as $off) {
            $all->takeOut($all->edges($first + $off, self::LONG_MM / $mm)[1]);
        }
        $found = [$first];
        while (\count($found) < self::MOST) {
            [$best, $most, $points] = [0.0, self::LEAST_MM / $mm, []];
            for ($degrees = 0; $degrees < 90; ++$degrees) {
                foreach ($found as $other) {
                    if (abs(fmod($degrees - $other + 135.0, 90.0) - 45.0) < self::APART) {
                        continue 2;
                    }
                }
                [$length, $of] = $all->edges((float) $degrees, self::LONG_MM / $mm);
                [$best, $most, $points] = $length > $most ? [(float) $degrees, $length, $of] : [$best, $most, $points];
            }
            if ([] === $points) {
                break;
            }
            $found[] = $best;
            $all->takeOut($points);
        }

        return array_map(static fn (float $degrees): float => $degrees > 45.0 ? $degrees - 90.0 : $degrees, $found);
    }

    /** @param list<int> $points */
    private function takeOut(array $points): void
    {
        foreach ($points as $k) {
            unset($this->points[$k % 90][$k]);
        }
    }

    /**
     * Long edges that run in a direction or square to it.
     *
     * @param float $long cells
     *
     * @return array{float, list<int>} their length together, cells, and their points
     */
    private function edges(float $degrees, float $long): array
    {
        [$c, $s] = [cos(deg2rad($degrees)), sin(deg2rad($degrees))];
        $lines = [];
        for ($k = -self::GRAIN; $k <= self::GRAIN; ++$k) {
            foreach ($this->points[((int) round($degrees) + $k + 180) % 90] ?? [] as $id => [$x, $y, $direction]) {
                [$along, $across] = [$c * $x + $s * $y, $c * $y - $s * $x];
                $isAlong = abs(fmod($direction - $degrees + 270.0, 180.0) - 90.0) < 45.0;
                [$t, $o] = $isAlong ? [$along, $across] : [$across, $along];
                $lines[($isAlong ? 0 : 1) + 2 * (int) floor($o / self::WITHIN[0])][$id] = $t;
            }
        }
        [$length, $points] = [0.0, []];
        foreach ($lines as $line) {
            asort($line);
            [$from, $last, $of] = [0.0, -\INF, []];
            foreach ($line + [-1 => \INF] as $id => $t) {
                if ($t - $last > self::WITHIN[1]) {
                    if ($last - $from >= $long) {
                        $length += $last - $from;
                        array_push($points, ...$of);
                    }
                    [$from, $of] = [$t, []];
                }
                $of[] = $id;
                $last = $t;
            }
        }

        return [$length, $points];
    }
}
