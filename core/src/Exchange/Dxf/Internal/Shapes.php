<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Dxf\Internal;

use Plinth\Core\Exchange\Dxf\DxfDrawing;

/**
 * The chains of points that one entity draws. A vertex is x, y, z and the bulge of the piece that begins there.
 *
 * @phpstan-import-type Chain from DxfDrawing
 *
 * @phpstan-type Vertex array{float, float, float, float}
 */
final class Shapes
{
    /** code that begins a vertex among a polyline's groups */
    public const VERTEX = -1;
    /** A curve is drawn by pieces that turn by at most this: 3°, 0.03 % of the radius off the curve. */
    private const STEP = \M_PI / 60.0;
    /** pieces of a whole spline, and the fewest between two of its knots */
    private const SPLINE_PIECES = 96;
    private const LEAST_PIECES = 8;
    private const MOST_CONTROL_POINTS = 10_000;
    private const MOST_DEGREE = 10;

    /** @return list<Chain> */
    public static function chains(Entity $e): array
    {
        $chains = match ($e->kind) {
            'LINE' => [array_map(static fn (array $p): array => [$p[0], $p[1]], [...$e->points(10), ...$e->points(11)])],
            'LWPOLYLINE' => [self::polyline(self::lightVertices($e), 1 === ((int) $e->number(70) & 1), $e->plane(), $e->number(38))],
            'POLYLINE' => self::heavy($e),
            'CIRCLE' => [self::arc($e->points(10)[0] ?? [0.0, 0.0, 0.0], $e->number(40), 0.0, 2.0 * \M_PI, $e->plane())],
            'ARC' => [
                self::arc(
                    $e->points(10)[0] ?? [0.0, 0.0, 0.0],
                    $e->number(40),
                    deg2rad($e->number(50)),
                    deg2rad($e->number(51)),
                    $e->plane(),
                ),
            ],
            'ELLIPSE' => [self::ellipse($e)],
            'SPLINE' => [self::spline($e)],
            'SOLID', 'TRACE' => [self::quarter($e, [0, 1, 3, 2], $e->plane())],
            '3DFACE' => [self::quarter($e, [0, 1, 2, 3], new Plane(0.0, 0.0, 1.0))],
            'LEADER' => [array_map(static fn (array $p): array => [$p[0], $p[1]], $e->points(10))],
            'HATCH' => (new HatchEdges($e))->chains(),
            default => [],
        };

        return array_values(
            array_filter(
                $chains,
                static fn (array $c): bool => \count($c) > 1 && array_reduce(
                    $c,
                    static fn (bool $ok, array $p): bool => $ok && is_finite($p[0]) && is_finite($p[1]),
                    true,
                ),
            ),
        );
    }

    /** @return list<Vertex> */
    private static function lightVertices(Entity $e): array
    {
        $vertices = [];
        foreach ($e->groups as [$code, $value]) {
            $last = \count($vertices) - 1;
            $vertex = $vertices[$last] ?? null;
            if (10 === $code) {
                $vertices[] = [(float) $value, 0.0, 0.0, 0.0];
            } elseif (20 === $code && null !== $vertex) {
                $vertices[$last] = [$vertex[0], (float) $value, 0.0, $vertex[3]];
            } elseif (42 === $code && null !== $vertex) {
                $vertices[$last] = [$vertex[0], $vertex[1], 0.0, (float) $value];
            }
        }

        return array_values($vertices);
    }

    /** @return list<list<array{float, float}>> polylines of old, in the plane or in space, and the lines of a mesh */
    private static function heavy(Entity $e): array
    {
        $flags = (int) $e->number(70);
        $vertices = [];
        $faces = [];
        $vertex = null;
        $kinds = 0;
        foreach ([...$e->groups, [self::VERTEX, '']] as [$code, $value]) {
            if (self::VERTEX === $code) {
                if (null !== $vertex) {
                    // 16: a control point of a fitted curve, not on it; 128 without 64: a face of a mesh.
                    if (128 === ($kinds & 192)) {
                        $faces[] = $vertex;
                    } elseif (0 === ($kinds & 16)) {
                        $vertices[] = [$vertex[10] ?? 0.0, $vertex[20] ?? 0.0, $vertex[30] ?? 0.0, $vertex[42] ?? 0.0];
                    }
                }
                $vertex = [];
                $kinds = 0;
            } elseif (null !== $vertex) {
                $vertex[$code] = (float) $value;
                $kinds = 70 === $code ? (int) $value : $kinds;
            }
        }
        if (0 !== ($flags & 64)) {
            return array_map(static fn (array $face): array => self::faceOf($face, $vertices), $faces);
        }
        if (0 !== ($flags & 16)) {
            return self::mesh($vertices, (int) $e->number(71), (int) $e->number(72));
        }
        $isInSpace = 0 !== ($flags & 8);

        return [
            self::polyline(
                $vertices,
                1 === ($flags & 1),
                $isInSpace ? new Plane(0.0, 0.0, 1.0) : $e->plane(),
                ($e->points(10)[0] ?? [0.0, 0.0, 0.0])[2],
            ),
        ];
    }

    /**
     * @param array<int, float> $face
     * @param list<Vertex> $vertices
     *
     * @return list<array{float, float}>
     */
    private static function faceOf(array $face, array $vertices): array
    {
        $chain = [];
        foreach ([71, 72, 73, 74] as $code) {
            $vertex = $vertices[abs((int) ($face[$code] ?? 0.0)) - 1] ?? null;
            if (null !== $vertex) {
                $chain[] = [$vertex[0], $vertex[1]];
            }
        }

        return [] === $chain ? [] : [...$chain, $chain[0]];
    }

    /**
     * @param list<Vertex> $vertices
     *
     * @return list<list<array{float, float}>>
     */
    private static function mesh(array $vertices, int $rows, int $columns): array
    {
        $chains = [];
        if ($rows < 1 || $columns < 1 || $rows * $columns > \count($vertices)) {
            return [];
        }
        for ($r = 0; $r < $rows; ++$r) {
            $chains[] = array_map(
                static fn (int $c): array => [$vertices[$r * $columns + $c][0], $vertices[$r * $columns + $c][1]],
                range(0, $columns - 1),
            );
        }
        for ($c = 0; $c < $columns; ++$c) {
            $chains[] = array_map(
                static fn (int $r): array => [$vertices[$r * $columns + $c][0], $vertices[$r * $columns + $c][1]],
                range(0, $rows - 1),
            );
        }

        return $chains;
    }

    /**
     * @param list<Vertex> $vertices
     *
     * @return list<array{float, float}>
     */
    public static function polyline(array $vertices, bool $isClosed, Plane $plane, float $elevation): array
    {
        if ($isClosed && [] !== $vertices) {
            $vertices[] = $vertices[0];
        }
        $chain = [];
        foreach ($vertices as $i => [$x, $y, $z, $bulge]) {
            $z = 0.0 === $z ? $elevation : $z;
            $chain[] = $plane->place($x, $y, $z);
            $next = $vertices[$i + 1] ?? null;
            if (null !== $next && 0.0 !== $bulge && is_finite($bulge)) {
                array_push($chain, ...self::bulge($x, $y, $next[0], $next[1], $bulge, $plane, $z));
            }
        }

        return $chain;
    }

    /**
     * The points between the ends of an arc; the bulge is the tangent of a quarter of its angle, positive to the left.
     *
     * @return list<array{float, float}>
     */
    private static function bulge(float $x1, float $y1, float $x2, float $y2, float $bulge, Plane $plane, float $z): array
    {
        $angle = 4.0 * atan($bulge);
        $pieces = max(1, (int) ceil(abs($angle) / self::STEP));
        // The centre lies on the chord's perpendicular.
        $k = (1.0 - $bulge * $bulge) / (4.0 * $bulge);
        $cx = ($x1 + $x2) / 2.0 - $k * ($y2 - $y1);
        $cy = ($y1 + $y2) / 2.0 + $k * ($x2 - $x1);
        $points = [];
        for ($i = 1; $i < $pieces; ++$i) {
            [$cos, $sin] = [cos($angle * $i / $pieces), sin($angle * $i / $pieces)];
            $points[] = $plane->place($cx + $cos * ($x1 - $cx) - $sin * ($y1 - $cy), $cy + $sin * ($x1 - $cx) + $cos * ($y1 - $cy), $z);
        }

        return $points;
    }

    /**
     * @param array{float, float, float} $centre
     *
     * @return list<array{float, float}>
     */
    public static function arc(array $centre, float $radius, float $from, float $to, Plane $plane): array
    {
        $chain = [];
        foreach (self::angles($from, $to) as $angle) {
            $chain[] = $plane->place($centre[0] + $radius * cos($angle), $centre[1] + $radius * sin($angle), $centre[2]);
        }

        return $chain;
    }

    /** @return list<float> from one angle counter-clockwise to the other, both among them; a whole turn where they are the same */
    private static function angles(float $from, float $to): array
    {
        if (!is_finite($from) || !is_finite($to)) {
            return [];
        }
        $sweep = fmod($to - $from, 2.0 * \M_PI);
        $sweep += $sweep <= 1e-9 ? 2.0 * \M_PI : 0.0;
        $pieces = max(1, (int) ceil($sweep / self::STEP));

        return array_map(static fn (int $i): float => $from + $sweep * $i / $pieces, range(0, $pieces));
    }

    /** @return list<array{float, float}> */
    private static function ellipse(Entity $e): array
    {
        $centre = $e->points(10)[0] ?? [0.0, 0.0, 0.0];
        $major = $e->points(11)[0] ?? [0.0, 0.0, 0.0];
        $ratio = $e->number(40, 1.0);
        $normal = [$e->number(210), $e->number(220), $e->number(230, 1.0)];
        // The minor axis is the normal crossed with the major one.
        $minor = [$ratio * ($normal[1] * $major[2] - $normal[2] * $major[1]), $ratio * ($normal[2] * $major[0] - $normal[0] * $major[2])];
        $chain = [];
        foreach (self::angles($e->number(41), $e->number(42, 2.0 * \M_PI)) as $t) {
            $chain[] = [$centre[0] + cos($t) * $major[0] + sin($t) * $minor[0], $centre[1] + cos($t) * $major[1] + sin($t) * $minor[1]];
        }

        return $chain;
    }

    /**
     * A rational B-spline by de Boor's rule (Piegl and Tiller, The NURBS Book, 4.1; from memory); through its fit points where it
     * has no control points.
     *
     * @return list<array{float, float}>
     */
    private static function spline(Entity $e): array
    {
        $controls = \array_slice($e->points(10), 0, self::MOST_CONTROL_POINTS);
        $degree = (int) $e->number(71, 3.0);
        $knots = $e->numbers(40);
        $weights = $e->numbers(41);
        $n = \count($controls);
        if ($degree < 1 || $degree > self::MOST_DEGREE || $n <= $degree || \count($knots) < $n + $degree + 1) {
            $through = $n > 0 ? $controls : $e->points(11);

            return array_map(static fn (array $p): array => [$p[0], $p[1]], $through);
        }
        $chain = [];
        $pieces = max(self::LEAST_PIECES, intdiv(self::SPLINE_PIECES, $n - $degree));
        for ($span = $degree; $span < $n; ++$span) {
            [$from, $to] = [$knots[$span], $knots[$span + 1]];
            if ($to <= $from) {
                continue;
            }
            for ($i = [] === $chain ? 0 : 1; $i <= $pieces; ++$i) {
                $t = $from + ($to - $from) * $i / $pieces;
                $d = [];
                for ($j = 0; $j <= $degree; ++$j) {
                    $k = $span - $degree + $j;
                    $w = $weights[$k] ?? 1.0;
                    $d[$j] = [$w * $controls[$k][0], $w * $controls[$k][1], $w];
                }
                for ($r = 1; $r <= $degree; ++$r) {
                    for ($j = $degree; $j >= $r; --$j) {
                        $k = $span - $degree + $j;
                        $length = $knots[$k + 1 + $degree - $r] - $knots[$k];
                        $a = $length > 0.0 ? ($t - $knots[$k]) / $length : 0.0;
                        $d[$j] = [
                            (1.0 - $a) * $d[$j - 1][0] + $a * $d[$j][0],
                            (1.0 - $a) * $d[$j - 1][1] + $a * $d[$j][1],
                            (1.0 - $a) * $d[$j - 1][2] + $a * $d[$j][2],
                        ];
                    }
                }
                $w = 0.0 === $d[$degree][2] ? 1.0 : $d[$degree][2];
                $chain[] = [$d[$degree][0] / $w, $d[$degree][1] / $w];
            }
        }

        return $chain;
    }

    /**
     * @param list<int> $order of the corners round the figure; the last may be the third again
     *
     * @return list<array{float, float}>
     */
    private static function quarter(Entity $e, array $order, Plane $plane): array
    {
        $corners = [];
        foreach ($order as $i) {
            $corner = $e->points(10 + $i)[0] ?? null;
            if (null !== $corner) {
                $corners[] = $plane->place(...$corner);
            }
        }

        return [] === $corners ? [] : [...$corners, $corners[0]];
    }
}
