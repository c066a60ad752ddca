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
    /** sine of the angle under which an edge still runs along a wall */
    private const ASKEW = 0.2;
    /** mm: less than this nobody sees */
    private const LEAST = 50.0;

    /**
     * @param list<Ring> $rings
     *
     * @return list<non-empty-list<array{float, float}>> lines along which none stands, the longest first
     */
    public static function of(array $rings, Storey $storey): array
    {
        $walls = self::walls($storey);
        $open = [];
        foreach ($rings as $ring) {
            $lines = [];
            foreach ($ring as $i => $from) {
                $to = $ring[($i + 1) % \count($ring)];
                foreach (self::bare($from, $to, $walls) as [$s, $t]) {
                    $lines = self::joined($lines, [self::along($from, $to, $s), self::along($from, $to, $t)]);
                }
            }
            if (\count($lines) > 1) {
                // The last may go on where the ring began.
                $lines = self::joined($lines, array_shift($lines));
            }
            array_push($open, ...array_filter($lines, static fn (array $line): bool => self::length($line) > self::LEAST));
        }
        usort($open, static fn (array $a, array $b): int => self::length($b) <=> self::length($a));

        return $open;
    }

    /** @param non-empty-list<array{float, float}> $line */
    public static function length(array $line): float
    {
        $mm = 0.0;
        for ($i = 1; $i < \count($line); ++$i) {
            $mm += hypot($line[$i][0] - $line[$i - 1][0], $line[$i][1] - $line[$i - 1][1]);
        }

        return $mm;
    }

    /**
     * @param list<non-empty-list<array{float, float}>> $lines
     * @param non-empty-list<array{float, float}> $next
     *
     * @return non-empty-list<non-empty-list<array{float, float}>> with one more, or the last one longer
     */
    private static function joined(array $lines, array $next): array
    {
        $last = array_pop($lines);
        if (null !== $last && hypot($next[0][0] - $last[\count($last) - 1][0], $next[0][1] - $last[\count($last) - 1][1]) < 1e-3) {
            return [...$lines, [...$last, ...\array_slice($next, 1)]];
        }

        return [...$lines, ...(null === $last ? [] : [$last]), $next];
    }

    /** @return list<array{float, float, float, float, float}> centre lines, and how far beside them their faces are */
    private static function walls(Storey $storey): array
    {
        $lines = [];
        foreach ($storey->walls as $wall) {
            if ($wall->enclosing && $wall->length() > Wall::JOIN_MM) {
                $chain = $wall->chain();
                for ($i = 1; $i < \count($chain); ++$i) {
                    $lines[] = [$chain[$i - 1]->x, $chain[$i - 1]->y, $chain[$i]->x, $chain[$i]->y, $wall->thickness / 2.0];
                }
            }
        }

        return $lines;
    }

    /**
     * @param array{float, float} $from
     * @param array{float, float} $to
     * @param list<array{float, float, float, float, float}> $walls
     *
     * @return list<array{float, float}> parts of a straight edge that run along none
     */
    private static function bare(array $from, array $to, array $walls): array
    {
        $covered = [];
        foreach ($walls as $wall) {
            $part = self::beside($from, $to, $wall);
            if (null !== $part) {
                $covered[] = $part;
            }
        }
        usort($covered, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $covered[] = [1.0, 1.0];
        $bare = [];
        $end = 0.0;
        foreach ($covered as [$low, $high]) {
            if ($low > $end) {
                $bare[] = [$end, $low];
            }
            $end = max($end, $high);
        }

        return $bare;
    }

    /**
     * @param array{float, float} $from
     * @param array{float, float} $to
     * @param array{float, float, float, float, float} $wall
     *
     * @return array{float, float}|null what of the edge lies in a box round the centre line
     */
    private static function beside(array $from, array $to, array $wall): ?array
    {
        [$ax, $ay, $bx, $by, $face] = $wall;
        $length = hypot($bx - $ax, $by - $ay);
        $ux = ($bx - $ax) / $length;
        $uy = ($by - $ay) / $length;
        $p = $ux * ($from[1] - $ay) - $uy * ($from[0] - $ax);
        $q = $ux * ($to[1] - $ay) - $uy * ($to[0] - $ax);
        // What runs across a wall leaves it at its face.
        $isBeside = abs($q - $p) < self::ASKEW * hypot($to[0] - $from[0], $to[1] - $from[1]);
        $half = $face + ($isBeside ? self::NEAR : 0.0);
        $across = self::between($p, $q, -$half, $half);
        $along = self::between(
            $ux * ($from[0] - $ax) + $uy * ($from[1] - $ay),
            $ux * ($to[0] - $ax) + $uy * ($to[1] - $ay),
            -$face,
            $length + $face,
        );
        if (null === $along || null === $across) {
            return null;
        }
        $low = max($along[0], $across[0]);
        $high = min($along[1], $across[1]);

        return $high > $low ? [$low, $high] : null;
    }

    /** @return array{float, float}|null which part of the way from one number to another lies between two bounds, 0 to 1 */
    private static function between(float $p, float $q, float $least, float $most): ?array
    {
        if (abs($q - $p) < 1e-9) {
            return $p < $least || $p > $most ? null : [0.0, 1.0];
        }
        $in = ($least - $p) / ($q - $p);
        $out = ($most - $p) / ($q - $p);
        $low = max(0.0, min($in, $out));
        $high = min(1.0, max($in, $out));

        return $high > $low ? [$low, $high] : null;
    }

    /**
     * @param array{float, float} $from
     * @param array{float, float} $to
     *
     * @return array{float, float}
     */
    private static function along(array $from, array $to, float $t): array
    {
        return [$from[0] + $t * ($to[0] - $from[0]), $from[1] + $t * ($to[1] - $from[1])];
    }
}
