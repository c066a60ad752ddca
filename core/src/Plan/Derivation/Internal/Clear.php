<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation\Internal;

/**
 * Clear width and depth of a room: how far one sees from a point along the direction of its longest side and across.
 *
 * @internal
 */
final class Clear
{
    /**
     * @param array{float, float} $at
     * @param non-empty-list<list<array{float, float}>> $rings the room's own first, then what stands in it
     *
     * @return array{float, float} mm; width lies nearer to x
     */
    public static function through(array $at, array $rings): array
    {
        $longest = 0.0;
        [$dx, $dy] = [1.0, 0.0];
        $n = \count($rings[0]);
        foreach ($rings[0] as $i => [$x, $y]) {
            [$u, $v] = $rings[0][($i + 1) % $n];
            $length = hypot($u - $x, $v - $y);
            if ($length > $longest) {
                $longest = $length;
                [$dx, $dy] = [($u - $x) / $length, ($v - $y) / $length];
            }
        }
        if (abs($dy) > abs($dx)) {
            [$dx, $dy] = [-$dy, $dx];
        }

        return [self::along($at, $dx, $dy, $rings), self::along($at, -$dy, $dx, $rings)];
    }

    /**
     * @param array{float, float} $at
     * @param list<list<array{float, float}>> $rings
     */
    private static function along(array $at, float $dx, float $dy, array $rings): float
    {
        $ahead = \INF;
        $behind = \INF;
        foreach ($rings as $ring) {
            $n = \count($ring);
            foreach ($ring as $i => [$x, $y]) {
                [$u, $v] = $ring[($i + 1) % $n];
                // Distances of both ends from the line of sight.
                $s = ($x - $at[0]) * -$dy + ($y - $at[1]) * $dx;
                $t = ($u - $at[0]) * -$dy + ($v - $at[1]) * $dx;
                if (($s > 0.0) === ($t > 0.0)) {
                    continue;
                }
                $part = $s / ($s - $t);
                $reach = ($x + $part * ($u - $x) - $at[0]) * $dx + ($y + $part * ($v - $y) - $at[1]) * $dy;
                if ($reach >= 0.0) {
                    $ahead = min($ahead, $reach);
                } else {
                    $behind = min($behind, -$reach);
                }
            }
        }

        return is_finite($ahead + $behind) ? $ahead + $behind : 0.0;
    }
}
