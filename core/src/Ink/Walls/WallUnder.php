<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\EdgePoints;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Page\Pen;
use Plinth\Core\Ink\Walls\Internal\Profiles;

/**
 * The drawn wall under a click: which way it runs, what its faces are, and how far it goes, over doors and windows too.
 */
final readonly class WallUnder
{
    /** Walls are no thinner and no thicker than this, mm: common practice, no source. */
    private const THICKNESS_MM = [55.0, 650.0];
    /** How far round the click its direction is looked for, mm and px. */
    private const LOOK_MM = 450.0;
    /** px, at least and at most */
    private const LOOK_PX = [24, 110];
    /** directions that are tried, the strongest first */
    private const DIRECTIONS = 3;
    /** length that tells what the wall looks like, mm */
    private const PIECE_MM = 420.0;
    /** it is followed by so much at a time, and over openings of at most this, mm */
    private const STEP_MM = 60.0;
    /** mm that a wall is followed over: the widest usual door, common practice, no source */
    private const WIDEST_OPENING = 2600.0;
    /** mm from the click that a wall is followed */
    private const FARTHEST = 40_000.0;
    /** a place looks like the wall when each face stands out by this part of what it does at the click */
    private const ALIKE = 0.45;
    /** mm that the ink must show of a wall */
    private const LEAST_LENGTH = 250.0;
    /** part of what was followed that shows both faces */
    private const LEAST_SHOWN = 0.4;

    /**
     * @return ProbedWall|null its ends lie on the centre lines of the drawn walls it meets; null where no wall is drawn
     */
    public static function at(PageInk $pageInk, PixelToMm $map, Point $at): ?ProbedWall
    {
        $best = null;
        $most = 0.0;
        foreach (self::directions($pageInk, $map, $at) as $angle) {
            $found = self::along($pageInk, $map, $at, $angle);
            $worth = null === $found ? 0.0 : min($found->length(), 3000.0) * $found->support;
            if ($worth > $most) {
                [$best, $most] = [$found, $worth];
            }
        }

        return $best;
    }

    /**
     * @return list<float> radians, the likeliest first
     */
    private static function directions(PageInk $pageInk, PixelToMm $map, Point $at): array
    {
        $p = $map->toPixel($at);
        $half = (int) max(self::LOOK_PX[0], min(self::LOOK_PX[1], self::LOOK_MM / $map->mmPerPixelAt($p)));
        [$left, $top] = [(int) floor($p->x) - $half, (int) floor($p->y) - $half];
        $raster = $pageInk->window($left, $top, 2 * $half, 2 * $half);
        [$left, $top] = [max(0, $left), max(0, $top)];
        $counts = count_chars($raster->bytes, 1);
        $contrast = (int) array_key_last($counts) - (int) array_key_first($counts);
        $bins = array_fill(0, 90, 0.0);
        [$a, $b, $c, $d] = $map->linearAt($p);
        foreach (EdgePoints::of($raster, 8, max(9, min(24, intdiv($contrast, 5))))->points ?? [] as [$x, $y, $lighter, $strength]) {
            $off = hypot($x + $left - $p->x, $y + $top - $p->y);
            if ($off > $half) {
                continue;
            }
            // The edge runs at a right angle to the way it grows lighter; on the page y runs down.
            [$ex, $ey] = [-sin(deg2rad($lighter)), cos(deg2rad($lighter))];
            $angle = fmod(rad2deg(atan2($c * $ex + $d * $ey, $a * $ex + $b * $ey)) + 360.0, 180.0);
            // What lies nearer counts for more.
            $bins[(int) ($angle / 2.0) % 90] += min($strength, 3200.0) * (1.2 - $off / $half);
        }
        $smooth = [];
        foreach (array_keys($bins) as $i) {
            $smooth[$i] = 2.0 * $bins[$i] + $bins[($i + 1) % 90] + $bins[($i + 89) % 90];
        }
        arsort($smooth);
        $found = [];
        foreach (array_keys($smooth) as $i) {
            $degrees = 2.0 * $i + 1.0;
            foreach ($found as $other) {
                if (abs(fmod($degrees - $other + 270.0, 180.0) - 90.0) < 14.0) {
                    continue 2;
                }
            }
            $found[] = $degrees;
            if (self::DIRECTIONS === \count($found)) {
                break;
            }
        }

        return array_map(deg2rad(...), $found);
    }

    private static function along(PageInk $pageInk, PixelToMm $map, Point $at, float $angle): ?ProbedWall
    {
        $best = null;
        $most = 0.0;
        foreach (self::bodies($pageInk, $map, $at, $angle) as [$off, $thickness]) {
            [$ux, $uy] = [cos($angle), sin($angle)];
            $middle = $at->plus(-$off * $uy, $off * $ux);
            $half = self::PIECE_MM / 2.0;
            $piece = WallProbe::along(
                $pageInk,
                $map,
                $middle->plus(-$half * $ux, -$half * $uy),
                $middle->plus($half * $ux, $half * $uy),
                $thickness,
                [[0.0, self::PIECE_MM]],
            );
            if (null === $piece) {
                continue;
            }
            $wall = self::followed($pageInk, $map, $piece);
            $worth = null === $wall ? 0.0 : min($wall->length(), 3000.0) * $wall->support;
            if (null !== $wall && $worth > $most) {
                [$best, $most] = [$wall, $worth];
            }
        }

        return $best;
    }

    /**
     * What could be the body of a wall that runs this way under the place: one run of ink, or what lies between two lines.
     *
     * @return list<array{float, float}> how far its middle lies to the left, and how thick it is, mm
     */
    private static function bodies(PageInk $pageInk, PixelToMm $map, Point $at, float $angle): array
    {
        [$ux, $uy] = [cos($angle), sin($angle)];
        $half = self::PIECE_MM / 2.0;
        $profiles = Profiles::across(
            $pageInk,
            $map,
            $at->plus(-$half * $ux, -$half * $uy),
            $at->plus($half * $ux, $half * $uy),
            array_map(static fn (int $k): array => [$k * self::PIECE_MM / 7, ($k + 1) * self::PIECE_MM / 7], range(0, 6)),
            self::THICKNESS_MM[1] + 60.0,
        );
        if (null === $profiles) {
            return [];
        }
        $mean = $profiles->together(static fn (float $t): float => 0.0);
        $level = 0.4 * max([0.0, ...$mean]);
        $pen = max(Pen::WIDEST_MM, Pen::PX[0] * 2.0 * $profiles->step);
        $runs = [];
        $n = \count($mean);
        for ($k = 0; $k < $n; ++$k) {
            if ($mean[$k] < $level || $level < 6.0) {
                continue;
            }
            $from = $k;
            while ($k < $n && $mean[$k] >= $level) {
                ++$k;
            }
            $runs[] = [$from * $profiles->step - $profiles->reach, ($k - 1) * $profiles->step - $profiles->reach];
        }
        $bodies = [];
        $near = 3.0 * 2.0 * $profiles->step;
        foreach ($runs as $i => [$a, $b]) {
            if (
                $a <= $near
                && $b >= -$near
                && $b - $a >= self::THICKNESS_MM[0]
                && $b - $a <= self::THICKNESS_MM[1]
                && $b - $a > 0.8 * $pen
            ) {
                $bodies[] = [($a + $b) / 2.0, $b - $a];
            }
            $next = $runs[$i + 1] ?? null;
            if (null === $next || $b - $a > $pen || $next[1] - $next[0] > $pen) {
                continue;
            }
            [$low, $high] = [($a + $b) / 2.0, ($next[0] + $next[1]) / 2.0];
            if ($a <= $near && $next[1] >= -$near && $high - $low >= self::THICKNESS_MM[0] && $high - $low <= self::THICKNESS_MM[1]) {
                $bodies[] = [($low + $high) / 2.0, $high - $low];
            }
        }

        return $bodies;
    }

    private static function followed(PageInk $pageInk, PixelToMm $map, ProbedWall $piece): ?ProbedWall
    {
        $length = $piece->length();
        [$ux, $uy] = [($piece->to->x - $piece->from->x) / $length, ($piece->to->y - $piece->from->y) / $length];
        $pattern = self::faces($pageInk, $map, $piece->from, $piece->to, $piece->thickness, [[0.0, $length]])[0] ?? null;
        if (null === $pattern) {
            return null;
        }
        $seen = [[0.0, $length]];
        $ends = [];
        foreach ([-1.0, 1.0] as $way) {
            $end = $way < 0.0 ? 0.0 : $length;
            $reached = $end;
            // A stretch at a time, each probed anew, so that the line does not run off.
            for ($t = $end; abs($t - $reached) < self::WIDEST_OPENING && abs($t) < self::FARTHEST; $t += $way * 10 * self::STEP_MM) {
                $pieces = [];
                for ($k = 0; $k < 10; ++$k) {
                    $a = $t + $way * $k * self::STEP_MM;
                    $pieces[] = $way > 0.0 ? [$a, $a + self::STEP_MM] : [$a - self::STEP_MM, $a];
                }
                foreach (self::faces($pageInk, $map, $piece->from, $piece->to, $piece->thickness, $pieces) as $k => $face) {
                    if (
                        null !== $face
                        && min($face[0] / $pattern[0], $face[1] / $pattern[1]) > self::ALIKE
                        && abs($face[2] - $pattern[2]) < 0.35 * max($pattern[0], $pattern[1])
                    ) {
                        $seen[] = $pieces[$k];
                        $reached = $way > 0.0 ? max($reached, $pieces[$k][1]) : min($reached, $pieces[$k][0]);
                    }
                }
            }
            $ends[] = $reached;
        }
        [$start, $stop] = $ends;
        if ($stop - $start < self::LEAST_LENGTH) {
            return null;
        }
        // What shows only here and there are letters and furniture in a row.
        $shown = array_sum(array_map(static fn (array $s): float => $s[1] - $s[0], $seen));
        if (
            $shown < self::LEAST_SHOWN * ($stop - $start)
            || ($stop - $start > 2.0 * self::PIECE_MM && $shown < self::PIECE_MM + 4.0 * self::STEP_MM)
        ) {
            return null;
        }
        usort($seen, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $from = $piece->from->plus($start * $ux, $start * $uy);
        $to = $piece->from->plus($stop * $ux, $stop * $uy);
        $wall = WallProbe::along(
            $pageInk,
            $map,
            $from,
            $to,
            $piece->thickness,
            array_map(static fn (array $s): array => [$s[0] - $start, $s[1] - $start], $seen),
        ) ?? null;
        if (null === $wall) {
            return null;
        }

        return self::endingOnWalls($pageInk, $map, $wall);
    }

    /**
     * How far each face stands out at places along, and how dark the inside is there.
     *
     * @param list<array{float, float}> $pieces
     *
     * @return list<array{float, float, float}|null>
     */
    private static function faces(PageInk $pageInk, PixelToMm $map, Point $from, Point $to, float $thickness, array $pieces): array
    {
        $profiles = Profiles::across($pageInk, $map, $from, $to, $pieces, $thickness / 2.0 + max(60.0, 0.5 * $thickness));
        if (null === $profiles) {
            return array_map(static fn (): null => null, $pieces);
        }
        $at = static fn (float $mm): int => (int) round(($mm + $profiles->reach) / $profiles->step);
        $slack = (int) ceil(max(2.5 * 2.0, 14.0 / $profiles->step));

        return array_map(static function (array $row) use ($at, $thickness, $slack): array {
            $strength = [];
            foreach ([-1, 1] as $side) {
                $here = array_map(
                    static fn (int $k): float => $row[max(0, min(\count($row) - 1, $at($side * $thickness / 2.0) - $side * $k))],
                    range(-$slack, $slack),
                );
                $outside = array_map(
                    static fn (int $k): float => $row[max(0, min(\count($row) - 1, $at($side * $thickness / 2.0) + $side * $k))],
                    range($slack, 3 * $slack),
                );
                $strength[] = max($here) - min($outside);
            }
            $inside = \array_slice($row, $at(-0.25 * $thickness), max(1, $at(0.25 * $thickness) - $at(-0.25 * $thickness)));

            return [max(1e-6, $strength[0]), max(1e-6, $strength[1]), array_sum($inside) / max(1, \count($inside))];
        }, $profiles->rows);
    }

    /**
     * Its ends on the centre lines of the walls it runs against.
     */
    private static function endingOnWalls(PageInk $pageInk, PixelToMm $map, ProbedWall $wall): ProbedWall
    {
        $length = $wall->length();
        [$ux, $uy] = [($wall->to->x - $wall->from->x) / $length, ($wall->to->y - $wall->from->y) / $length];
        $ends = [];
        foreach ([[$wall->from, -1.0], [$wall->to, 1.0]] as [$end, $way]) {
            $moved = $end;
            foreach ([60.0, 130.0] as $beyond) {
                $look = $end->plus($way * $beyond * $ux, $way * $beyond * $uy);
                foreach (self::bodies($pageInk, $map, $look, atan2($uy, $ux) + \M_PI_2) as [$off, $thickness]) {
                    // To the left of the perpendicular is back along the wall.
                    $along = $way * $beyond - $off;
                    if (abs($along) <= $thickness / 2.0 + 70.0 && $way * $along > -0.5 * $thickness) {
                        $moved = $end->plus($along * $ux, $along * $uy);
                        break 2;
                    }
                }
            }
            $ends[] = $moved;
        }

        return new ProbedWall(
            $ends[0],
            $ends[1],
            $wall->thickness,
            $wall->centreSigma,
            $wall->thicknessSigma,
            $wall->isSolid,
            $wall->support,
        );
    }
}
