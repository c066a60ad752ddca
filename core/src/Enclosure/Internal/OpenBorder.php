<?php

declare(strict_types=1);

namespace Plinth\Core\Enclosure\Internal;

use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;

/**
 * What of the border of an area no wall stands along.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Polygon
 */
final class OpenBorder
{
    /** mm by which an outline may miss the face that it follows */
    private const NEAR = 30.0;
    /** mm: less than this nobody sees */
    private const LEAST = 50.0;

    /**
     * @param list<Ring> $rings
     *
     * @return list<array{array{float, float}, array{float, float}}> from where to where, the longest first
     */
    public static function of(array $rings, Storey $storey): array
    {
        $walls = [];
        foreach ($storey->walls as $wall) {
            if ($wall->enclosing && $wall->length() > Wall::JOIN_MM) {
                $chain = $wall->chain();
                for ($i = 1; $i < \count($chain); ++$i) {
                    $walls[] = [$chain[$i - 1]->x, $chain[$i - 1]->y, $chain[$i]->x, $chain[$i]->y, $wall->thickness / 2.0 + self::NEAR];
                }
            }
        }
        $open = [];
        foreach ($rings as $ring) {
            foreach ($ring as $i => $from) {
                $to = $ring[($i + 1) % \count($ring)];
                foreach (self::bare($from, $to, $walls) as [$s, $t]) {
                    [$dx, $dy] = [$to[0] - $from[0], $to[1] - $from[1]];
                    $open[] = [[$from[0] + $s * $dx, $from[1] + $s * $dy], [$from[0] + $t * $dx, $from[1] + $t * $dy]];
                }
            }
        }
        usort($open, static fn (array $a, array $b): int => self::length($b) <=> self::length($a));

        return array_values(array_filter($open, static fn (array $o): bool => self::length($o) > self::LEAST));
    }

    /** @param array{array{float, float}, array{float, float}} $line */
    private static function length(array $line): float
    {
        return hypot($line[1][0] - $line[0][0], $line[1][1] - $line[0][1]);
    }

    /**
     * @param array{float, float} $from
     * @param array{float, float} $to
     * @param list<array{float, float, float, float, float}> $walls centre lines and how far beside them is along them
     *
     * @return list<array{float, float}> parts of a straight edge that run along none
     */
    private static function bare(array $from, array $to, array $walls): array
    {
        $along = [];
        foreach ($walls as [$ax, $ay, $bx, $by, $half]) {
            $length = hypot($bx - $ax, $by - $ay);
            [$ux, $uy] = [($bx - $ax) / $length, ($by - $ay) / $length];
            [$dx, $dy, $ex, $ey] = [$from[0] - $ax, $from[1] - $ay, $to[0] - $ax, $to[1] - $ay];
            [$s1, $a1, $s2, $a2] = [$ux * $dx + $uy * $dy, $ux * $dy - $uy * $dx, $ux * $ex + $uy * $ey, $ux * $ey - $uy * $ex];
            [$low, $high] = [0.0, 1.0];
            // The edge within a box round the centre line (Liang and Barsky).
            foreach ([[$s1, $s2, -$half, $length + $half], [$a1, $a2, -$half, $half]] as [$p, $q, $least, $most]) {
                if (abs($q - $p) < 1e-9) {
                    $high = $p < $least || $p > $most ? -1.0 : $high;
                    continue;
                }
                [$in, $out] = [($least - $p) / ($q - $p), ($most - $p) / ($q - $p)];
                [$low, $high] = [max($low, min($in, $out)), min($high, max($in, $out))];
            }
            if ($high > $low) {
                $along[] = [$low, $high];
            }
        }
        usort($along, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        [$bare, $end] = [[], 0.0];
        foreach ([...$along, [1.0, 1.0]] as [$low, $high]) {
            if ($low > $end) {
                $bare[] = [$end, $low];
            }
            $end = max($end, $high);
        }

        return $bare;
    }
}
