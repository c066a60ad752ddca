<?php

declare(strict_types=1);

namespace Plinth\Core\Projection\Internal;

use Plinth\Core\Geometry\Polygon;

/**
 * Where an upright plane cuts a closed surface.
 *
 * Corners in the plane count as lying behind it: it cuts just before them, so that each edge is cut or not, and what it leaves is closed.
 *
 * @internal
 *
 * @phpstan-import-type Place from Facet
 */
final class CutRings
{
    /** Corners no further before the plane lie in it, mm. */
    private const ON_MM = 1e-4;
    private const NOTHING_MM2 = 1.0;

    /**
     * @param list<Place> $places of vertices
     * @param list<non-empty-list<list<int>>> $faces by numbers of vertices
     * @param float $from u of the stretch that is cut
     *
     * @return list<non-empty-list<array{float, float}>> u and v: outer rings counter-clockwise, holes clockwise
     */
    public static function of(array $places, array $faces, float $depth, float $from, float $to): array
    {
        $depths = array_column($places, 2);
        if ([] === $depths || min($depths) >= $depth - self::ON_MM || max($depths) < $depth - self::ON_MM) {
            return [];
        }
        // Through each face from edge to edge, what is solid to the left.
        $next = [];
        $at = [];
        foreach ($faces as $face) {
            $crossed = [];
            foreach ($face as $ring) {
                foreach ($ring as $i => $b) {
                    $a = $ring[$i > 0 ? $i - 1 : \count($ring) - 1];
                    [$p, $q] = [$places[$a], $places[$b]];
                    if ($p[2] >= $depth - self::ON_MM === $q[2] >= $depth - self::ON_MM) {
                        continue;
                    }
                    $key = $a < $b ? "$a,$b" : "$b,$a";
                    $part = max(0.0, min(1.0, ($depth - $p[2]) / ($q[2] - $p[2])));
                    $at[$key] ??= [$p[0] + $part * ($q[0] - $p[0]), $p[1] + $part * ($q[1] - $p[1])];
                    // Entering what lies behind, one comes out of the face to the left; leaving it, one goes in.
                    $crossed[] = [$key, $p[2] < $q[2]];
                }
            }
            foreach (self::pairs($crossed, $at) as [$one, $other]) {
                $next[$one][] = $other;
            }
        }

        return self::within(self::chained($next, $at), $from, $to);
    }

    /**
     * @param list<array{string, bool}> $crossed edges of a face, and whether its ring enters what lies behind there
     * @param array<string, array{float, float}> $at
     *
     * @return list<array{string, string}> from edge to edge
     */
    private static function pairs(array $crossed, array $at): array
    {
        if (2 === \count($crossed)) {
            return [$crossed[0][1] ? [$crossed[0][0], $crossed[1][0]] : [$crossed[1][0], $crossed[0][0]]];
        }
        if (\count($crossed) < 2) {
            return [];
        }
        // Along the line in which the face's plane is cut.
        [$first, $far] = [$crossed[0][0], $crossed[1][0]];
        $off = static fn (string $key): float => hypot($at[$key][0] - $at[$first][0], $at[$key][1] - $at[$first][1]);
        foreach ($crossed as [$key]) {
            $far = $off($key) > $off($far) ? $key : $far;
        }
        [$du, $dv] = [$at[$far][0] - $at[$first][0], $at[$far][1] - $at[$first][1]];
        $along = static fn (string $key): float => $at[$key][0] * $du + $at[$key][1] * $dv;
        usort($crossed, static fn (array $a, array $b): int => $along($a[0]) <=> $along($b[0]));
        $pairs = [];
        for ($k = 1; $k < \count($crossed); $k += 2) {
            [$one, $other] = [$crossed[$k - 1], $crossed[$k]];
            $pairs[] = $one[1] ? [$one[0], $other[0]] : [$other[0], $one[0]];
        }

        return $pairs;
    }

    /**
     * @param array<string, list<string>> $next
     * @param array<string, array{float, float}> $at
     *
     * @return list<non-empty-list<array{float, float}>>
     */
    private static function chained(array $next, array $at): array
    {
        $rings = [];
        while ([] !== $next) {
            $start = array_key_first($next);
            $ring = [];
            for ($key = $start; isset($next[$key]);) {
                $to = array_pop($next[$key]);
                if ([] === $next[$key]) {
                    unset($next[$key]);
                }
                $ring[] = $at[$key];
                $key = $to;
            }
            if (\count($ring) > 2) {
                $rings[] = $ring;
            }
        }

        return $rings;
    }

    /**
     * @param list<non-empty-list<array{float, float}>> $rings
     *
     * @return list<non-empty-list<array{float, float}>> what of them lies between two u
     */
    private static function within(array $rings, float $from, float $to): array
    {
        $left = [];
        foreach ($rings as $ring) {
            foreach ([[1.0, $from], [-1.0, -$to]] as [$sign, $least]) {
                $kept = [];
                $n = \count($ring);
                foreach (is_finite($least) ? $ring : [] as $i => $p) {
                    $q = $ring[$i + 1 < $n ? $i + 1 : 0];
                    [$a, $b] = [$sign * $p[0] - $least, $sign * $q[0] - $least];
                    if ($a >= 0.0) {
                        $kept[] = $p;
                    }
                    if ($a >= 0.0 !== $b >= 0.0) {
                        $kept[] = [$sign * $least, $p[1] + $a / ($a - $b) * ($q[1] - $p[1])];
                    }
                }
                $ring = is_finite($least) ? $kept : $ring;
            }
            if (\count($ring) > 2 && abs(Polygon::area($ring)) > self::NOTHING_MM2) {
                $left[] = $ring;
            }
        }

        return $left;
    }
}
