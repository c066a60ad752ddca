<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Picks\Internal;

/**
 * Straight edges in a window: each edge point votes for the one line that its own direction names (Hough transform with
 * gradients; Ballard 1981, from memory), the strongest is fitted and taken out, and so on; then edges that face each other
 * at a pen's width become strokes.
 *
 * @internal
 */
final class EdgeLines
{
    /** degrees of a bin: points of one edge scatter no wider than a few of these */
    private const DEGREES = 3;
    /** lines in a window: more are hatching */
    private const MOST = 14;
    /** points of an edge that make a line: one for each pixel of it */
    public const LEAST_POINTS = 8;
    /** px off its line within which a point is of it: blur and raster leave half a pixel */
    private const NEAR = 0.9;
    /** degrees by which the way a point grows lighter may differ from its line's */
    private const ALIKE_DEGREES = 14.0;

    /**
     * @param list<array{float, float, float, float}> $points x, y counted from the pick, direction of growing lighter, strength
     *
     * @return list<EdgeLine> strongest first
     */
    public static function in(array $points): array
    {
        $lines = [];
        while (\count($lines) < self::MOST && \count($points) >= self::LEAST_POINTS) {
            [$degrees, $off] = self::peak($points);
            $line = null;
            $members = [];
            [$nx, $ny] = [cos(deg2rad($degrees)), sin(deg2rad($degrees))];
            for ($round = 0; $round < 3; ++$round) {
                $near = 0 === $round ? 1.6 : self::NEAR;
                $at = $line->off ?? $off;
                $members = [];
                $turn = rad2deg(atan2($ny, $nx));
                foreach ($points as $i => [$x, $y, $direction]) {
                    if (
                        abs($nx * $x + $ny * $y - $at) <= $near
                        && abs(fmod($direction - $turn + 540.0, 360.0) - 180.0) <= self::ALIKE_DEGREES
                    ) {
                        $members[$i] = [$x, $y];
                    }
                }
                if (\count($members) < self::LEAST_POINTS) {
                    break;
                }
                $line = EdgeLine::through(array_values($members), $nx, $ny);
                [$nx, $ny] = [$line->nx, $line->ny];
            }
            if (null === $line || \count($members) < self::LEAST_POINTS) {
                break;
            }
            $lines[] = $line;
            // Its neighbours within a pixel are the same edge, badly seen.
            $turn = rad2deg(atan2($ny, $nx));
            $points = array_values(
                array_filter(
                    $points,
                    static fn (array $p): bool => abs($line->distance($p[0], $p[1])) > 1.6
                        || abs(fmod($p[2] - $turn + 540.0, 360.0) - 180.0) > 2 * self::ALIKE_DEGREES,
                ),
            );
        }

        return $lines;
    }

    /**
     * @param list<EdgeLine> $edges
     *
     * @return list<EdgeLine> strokes as their middles, then the edges of surfaces
     */
    public static function strokes(array $edges, float $penPx): array
    {
        $taken = [];
        $lines = [];
        foreach ($edges as $i => $edge) {
            $best = null;
            for ($k = $i + 1; $k < \count($edges); ++$k) {
                // Dark between them: each grows lighter away from the other.
                $width = $edge->off + $edges[$k]->off;
                if (
                    isset($taken[$i])
                    || isset($taken[$k])
                    || $edge->angleTo($edges[$k]) < 172.0
                    || $width <= 0.3
                    || $width > $penPx
                    || !self::overlap($edge, $edges[$k])
                ) {
                    continue;
                }
                if (null === $best || $width < $edge->off + $edges[$best]->off) {
                    $best = $k;
                }
            }
            if (null !== $best) {
                $taken[$i] = $taken[$best] = true;
                $lines[] = EdgeLine::middle($edge, $edges[$best]);
            }
        }
        foreach ($edges as $i => $edge) {
            if (!isset($taken[$i])) {
                $lines[] = $edge;
            }
        }

        return $lines;
    }

    /** Half of the shorter one lies beside the longer one. */
    public static function overlap(EdgeLine $a, EdgeLine $b): bool
    {
        $reach = static function (EdgeLine $line) use ($a): array {
            $t = array_map(static fn (array $p): float => $a->along($p[0], $p[1]), $line->points);

            return [min($t), max($t)];
        };
        [[$a1, $a2], [$b1, $b2]] = [$reach($a), $reach($b)];

        return min($a2, $b2) - max($a1, $b1) >= 0.5 * min($a2 - $a1, $b2 - $b1);
    }

    /**
     * @param list<array{float, float, float, float}> $points
     *
     * @return array{float, float} direction of the normal in degrees, distance from the origin
     */
    private static function peak(array $points): array
    {
        $votes = [];
        $most = 0.0;
        $best = 0;
        $bins = intdiv(360, self::DEGREES);
        foreach ($points as [$x, $y, $direction, $strength]) {
            $vote = min($strength, 3200.0);
            $middle = (int) round($direction / self::DEGREES);
            for ($k = -2; $k <= 2; ++$k) {
                $bin = ($middle + $k + $bins) % $bins;
                $rad = deg2rad($bin * self::DEGREES);
                $key = $bin * 1024 + (int) round(cos($rad) * $x + sin($rad) * $y) + 512;
                $sum = ($votes[$key] ?? 0.0) + $vote;
                $votes[$key] = $sum;
                if ($sum > $most) {
                    $most = $sum;
                    $best = $key;
                }
            }
        }

        return [intdiv($best, 1024) * self::DEGREES, (float) ($best % 1024 - 512)];
    }
}
