<?php

declare(strict_types=1);

namespace Plinth\Core\Sweeping;

use Plinth\Core\Geometry\Arc;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Model\Sweep;
use Plinth\Core\Sweeping\Exception\UnbuildableSweep;

/**
 * The surface of a profile that is taken along a path.
 *
 * At each corner of the path the profile lies in the plane that halves it: there a point x to the right of the path lies at the corner
 * plus x (n + m) / (1 + n·m), n and m the normals to the right of the stretches before and after, so that it lies x beside both. All
 * faces along a stretch are plane then. Arcs are chords, of the profile no further off than 0.1 mm, of the path no further than 0.3.
 * A bend is a corner, and whether it lies between chords of an arc.
 *
 * @phpstan-type Ring non-empty-list<array{float, float}>
 *
 * @phpstan-type Place array{float, float, float}
 * @phpstan-type Bend array{float, float, bool}
 */
final readonly class SweptForm
{
    private const PROFILE_OFF_MM = 0.1;
    private const PATH_OFF_MM = 0.3;
    /** Corners of a path nearer to each other than this are one, mm. */
    private const SAME_MM = 0.5;
    /** 1 + n·m of the sharpest corner that is mitred: some 16°. */
    private const SHARPEST = 0.04;
    private const MOST_FACES = 40_000;
    /** part of what it covers in plan that may lie over itself: what rounding to the grid of the overlay makes */
    private const OVERLAP = 1e-6;

    /**
     * @param list<Place> $places mm
     * @param list<list<int>> $faces corners, counter-clockwise seen from outside
     * @param list<array{int, int}> $smooth edges between chords of what is round
     * @param list<Ring> $covers rings round what it covers of the plan, and holes in that
     */
    private function __construct(public array $places, public array $faces, public array $smooth, public array $covers)
    {
    }

    /**
     * @param list<Point> $corners of the path in its plane, mm
     * @param list<float> $rises
     * @param float $up mm that the profile's zero lies over that plane
     *
     * @throws UnbuildableSweep
     */
    public static function of(Sweep $sweep, array $corners, array $rises, bool $closed, float $up): self
    {
        $profile = self::profile($sweep->profile, ($closed && self::goesClockwise($corners, $rises)) !== $sweep->inward);
        $path = self::path($corners, $rises, $closed);
        $n = \count($path);
        if ($n < ($closed ? 3 : 2)) {
            throw UnbuildableSweep::hasNoPath();
        }
        if ($n * \count($profile) > self::MOST_FACES) {
            throw UnbuildableSweep::tooManyFaces(self::MOST_FACES);
        }
        $mitres = self::mitres($path, $closed);
        $covers = self::covers($path, $mitres, $closed, $profile);
        $places = [];
        foreach ($path as $i => [$x, $y]) {
            foreach ($profile as [$off, $over]) {
                $places[] = [$x + $off * $mitres[$i][0], $y + $off * $mitres[$i][1], $up + $over];
            }
        }

        return new self($places, self::faces($n, \count($profile), $closed), self::smooth($path, $profile, $closed), $covers);
    }

    /** @return float mm, how high its lowest place lies */
    public function bottom(): float
    {
        return array_reduce($this->places, static fn (float $least, array $p): float => min($least, $p[2]), \INF);
    }

    /** The same on a plane that stands upright over a line of the plan: what lay over the path lies before it. */
    public function upright(Point $left, Point $right): self
    {
        $length = $left->distanceTo($right);
        [$dx, $dy] = [($right->x - $left->x) / $length, ($right->y - $left->y) / $length];

        $at = static fn (float $along, float $before): array => [
            $left->x + $along * $dx + $before * $dy, $left->y + $along * $dy - $before * $dx,
        ];
        [$along, $before] = [array_column($this->places, 0), array_column($this->places, 2)];
        $covers = [] === $along || [] === $before ? [] : [[
            $at(min($along), max($before)), $at(max($along), max($before)), $at(max($along), min($before)), $at(min($along), min($before)),
        ]];

        return new self(
            array_map(static fn (array $p): array => [...$at($p[0], $p[2]), $p[1]], $this->places),
            $this->faces,
            $this->smooth,
            $covers,
        );
    }

    /**
     * @return non-empty-list<Bend> counter-clockwise
     *
     * @throws UnbuildableSweep
     */
    private static function profile(Contour $of, bool $isTurned): array
    {
        if (abs($of->area()) < 1e-3 || null !== $of->selfCrossing()) {
            throw UnbuildableSweep::hasNoProfile();
        }
        $ring = self::chords($of->corners, $of->rises, true, self::PROFILE_OFF_MM);
        $ring = $isTurned ? array_map(static fn (array $p): array => [-$p[0], $p[1], $p[2]], $ring) : $ring;

        return Polygon::area(array_map(static fn (array $p): array => [$p[0], $p[1]], $ring)) < 0.0 ? array_reverse($ring) : $ring;
    }

    /**
     * @param list<Point> $corners
     * @param list<float> $rises
     *
     * @return list<Bend> none twice, none on the line between its neighbours
     */
    private static function path(array $corners, array $rises, bool $closed): array
    {
        $points = [] === $corners ? [] : self::chords($corners, $rises, $closed, self::PATH_OFF_MM);
        $kept = [];
        foreach ($points as $p) {
            $last = $kept[\count($kept) - 1] ?? null;
            if (null === $last || hypot($p[0] - $last[0], $p[1] - $last[1]) > self::SAME_MM) {
                $kept[] = $p;
            }
        }
        while ($closed && \count($kept) > 2 && hypot(end($kept)[0] - $kept[0][0], end($kept)[1] - $kept[0][1]) <= self::SAME_MM) {
            array_pop($kept);
        }
        $n = \count($kept);
        $bent = [];
        foreach ($kept as $i => $p) {
            [$before, $after] = [$kept[$i > 0 ? $i - 1 : $n - 1], $kept[$i + 1 < $n ? $i + 1 : 0]];
            $isEnd = !$closed && (0 === $i || $n - 1 === $i);
            $cross = ($p[0] - $before[0]) * ($after[1] - $p[1]) - ($p[1] - $before[1]) * ($after[0] - $p[0]);
            $ahead = ($p[0] - $before[0]) * ($after[0] - $p[0]) + ($p[1] - $before[1]) * ($after[1] - $p[1]);
            if ($isEnd || $ahead <= 0.0 || abs($cross) > 1e-9 * $ahead) {
                $bent[] = $p;
            }
        }

        return $bent;
    }

    /**
     * @param non-empty-list<Point> $corners
     * @param list<float> $rises
     *
     * @return non-empty-list<Bend>
     */
    private static function chords(array $corners, array $rises, bool $closed, float $offMm): array
    {
        $points = [];
        $n = \count($corners);
        foreach ($corners as $i => $from) {
            $points[] = [$from->x, $from->y, false];
            $to = $corners[($i + 1) % $n];
            $rise = $rises[$i] ?? 0.0;
            if ((!$closed && $n - 1 === $i) || abs($rise) < Arc::LEAST_RISE_MM || $from->distanceTo($to) < Arc::LEAST_RISE_MM) {
                continue;
            }
            $arc = new Arc($from, $to, $rise);
            $count = max(2, $arc->chords($offMm));
            for ($k = 1; $k < $count; ++$k) {
                $on = $arc->at($k / $count);
                $points[] = [$on->x, $on->y, true];
            }
        }

        return $points;
    }

    /**
     * @param list<Point> $corners
     * @param list<float> $rises
     */
    private static function goesClockwise(array $corners, array $rises): bool
    {
        return [] !== $corners && (new Contour($corners, $rises))->area() < 0.0;
    }

    /**
     * @param list<Bend> $path
     *
     * @return list<array{float, float}> how far a point one mm to the right of the path lies off each corner
     *
     * @throws UnbuildableSweep
     */
    private static function mitres(array $path, bool $closed): array
    {
        $n = \count($path);
        $normal = static function (int $from, int $to) use ($path): array {
            [$dx, $dy] = [$path[$to][0] - $path[$from][0], $path[$to][1] - $path[$from][1]];
            $length = hypot($dx, $dy);

            return [$dy / $length, -$dx / $length];
        };
        $mitres = [];
        foreach (array_keys($path) as $i) {
            $before = $i > 0 ? $normal($i - 1, $i) : ($closed ? $normal($n - 1, 0) : null);
            $after = $i + 1 < $n ? $normal($i, $i + 1) : ($closed ? $normal($n - 1, 0) : null);
            [$before, $after] = [$before ?? $after ?? [0.0, 0.0], $after ?? $before ?? [0.0, 0.0]];
            $one = 1.0 + $before[0] * $after[0] + $before[1] * $after[1];
            if ($one < self::SHARPEST) {
                throw UnbuildableSweep::turnsBack($i, new Point($path[$i][0], $path[$i][1]));
            }
            $mitres[] = [($before[0] + $after[0]) / $one, ($before[1] + $after[1]) / $one];
        }

        return $mitres;
    }

    /**
     * Every stretch goes forward on both edges of what the profile covers, and that lies nowhere over itself.
     *
     * @param list<Bend> $path
     * @param list<array{float, float}> $mitres
     * @param non-empty-list<Bend> $profile
     *
     * @return list<Ring> rings round all that, and holes in it
     *
     * @throws UnbuildableSweep
     */
    private static function covers(array $path, array $mitres, bool $closed, array $profile): array
    {
        $n = \count($path);
        [$least, $most] = [min(array_column($profile, 0)), max(array_column($profile, 0))];
        $strips = [];
        for ($i = 0; $i < ($closed ? $n : $n - 1); ++$i) {
            $k = ($i + 1) % $n;
            [$dx, $dy] = [$path[$k][0] - $path[$i][0], $path[$k][1] - $path[$i][1]];
            $ring = [];
            foreach ([[$i, $most], [$k, $most], [$k, $least], [$i, $least]] as [$at, $off]) {
                $ring[] = [$path[$at][0] + $off * $mitres[$at][0], $path[$at][1] + $off * $mitres[$at][1]];
            }
            foreach ([[$ring[0], $ring[1]], [$ring[3], $ring[2]]] as [$from, $to]) {
                if (($to[0] - $from[0]) * $dx + ($to[1] - $from[1]) * $dy <= 0.0) {
                    throw UnbuildableSweep::hasNoRoom($i, new Point($path[$i][0], $path[$i][1]));
                }
            }
            $strips[] = $ring;
        }
        $sum = array_sum(array_map(static fn (array $ring): float => abs(Polygon::area($ring)), $strips));
        $shapes = Overlay::union($strips);
        if ($sum - Overlay::area($shapes) > self::OVERLAP * $sum + 1.0) {
            throw UnbuildableSweep::runsIntoItself();
        }

        return array_merge(...array_map(static fn (array $shape): array => [$shape['outer'], ...$shape['holes']], $shapes));
    }

    /**
     * @param int $n corners of the path
     * @param int $m corners of the profile
     *
     * @return list<list<int>>
     */
    private static function faces(int $n, int $m, bool $closed): array
    {
        $faces = [];
        for ($i = 0; $i < ($closed ? $n : $n - 1); ++$i) {
            $next = ($i + 1) % $n;
            for ($k = 0; $k < $m; ++$k) {
                $l = ($k + 1) % $m;
                $faces[] = [$i * $m + $l, $i * $m + $k, $next * $m + $k, $next * $m + $l];
            }
        }
        if (!$closed) {
            // Seen against the path the profile goes round as it does.
            $faces[] = range(0, $m - 1);
            $faces[] = range($n * $m - 1, ($n - 1) * $m);
        }

        return $faces;
    }

    /**
     * @param non-empty-list<Bend> $path
     * @param non-empty-list<Bend> $profile
     *
     * @return list<array{int, int}>
     */
    private static function smooth(array $path, array $profile, bool $closed): array
    {
        [$n, $m] = [\count($path), \count($profile)];
        $smooth = [];
        for ($i = 0; $i < $n; ++$i) {
            for ($k = 0; $k < $m; ++$k) {
                if ($path[$i][2]) {
                    $smooth[] = [$i * $m + $k, $i * $m + ($k + 1) % $m];
                }
                if ($profile[$k][2] && ($closed || $i + 1 < $n)) {
                    $smooth[] = [$i * $m + $k, ($i + 1) % $n * $m + $k];
                }
            }
        }

        return $smooth;
    }
}
