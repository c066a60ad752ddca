<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Page\Pen;
use Plinth\Core\Ink\Walls\Internal\FaceEdge;
use Plinth\Core\Ink\Walls\Internal\Profiles;
use Plinth\Core\Numerics\Median;

/**
 * Lays a wall on the ink: both faces are found in profiles across it, each face gets a straight line through what was found along
 * it, and from the two come the centre line and the thickness with their ±.
 */
final readonly class WallProbe
{
    /** one profile for so many pixels of the wall, within limits */
    private const EVERY_PX = 12.0;
    /** looks across a wall, at least and at most */
    private const PROFILES = [6, 28];
    /** What meets the wall at its ends is left out, mm beyond half the thickness. */
    private const ENDS_MM = 60.0;
    /** Faces nearer to each other than this part of the thickness that was looked for are none. */
    private const LEAST_OF_GUESS = 0.3;
    /** grey levels that a face stands out by */
    private const FAINTEST = 6.0;
    /** of the profiles that must show a face */
    private const LEAST_PART = 0.3;
    /** what bleeding ink, blur and the raster leave of a face's place, px: as for picks */
    private const FLOOR_PX = 0.15;

    /**
     * @param Point $from beginning of the centre line, roughly, mm
     * @param float $thickness roughly, mm
     * @param list<array{float, float}> $stretches where the wall shows along the line, mm; all of it when there are none
     * @param float|null $within how far off a face may lie, mm
     *
     * @return ProbedWall|null null where the ink does not show two faces; its ends lie beside those given
     */
    public static function along(
        PageInk $pageInk,
        PixelToMm $map,
        Point $from,
        Point $to,
        float $thickness,
        array $stretches = [],
        ?float $within = null,
    ): ?ProbedWall {
        $length = $from->distanceTo($to);
        if ($length <= 1.0) {
            return null;
        }
        $middle = new Point(($from->x + $to->x) / 2.0, ($from->y + $to->y) / 2.0);
        $scale = $map->mmPerPixelAt($map->toPixel($middle));
        $pen = $scale * Pen::px($scale);
        $within ??= max(4.0 * $scale, min(0.3 * $thickness, 60.0));
        $reach = $thickness / 2.0 + $within + max(8.0 * $scale, 1.2 * $pen);
        $profiles = Profiles::across($pageInk, $map, $from, $to, self::pieces($length, $thickness, $scale, $stretches), $reach);
        if (null === $profiles) {
            return null;
        }
        $offs = [-$thickness / 2.0, $thickness / 2.0];
        $slopes = [0.0, 0.0];
        $isLine = [null, null];
        $found = [[], []];
        // The second time the faces are looked for where the first has put them.
        for ($round = 0; $round < 3; ++$round) {
            $within = 0 === $round ? $within : max(3.0 * $scale, 0.4 * $within);
            $shift = static fn (float $t): float => ($slopes[0] + $slopes[1]) / 2.0 * ($t - $length / 2.0);
            $mean = $profiles->together($shift);
            $inside = self::inside(
                $mean,
                ($profiles->reach + $offs[0]) / $profiles->step,
                ($profiles->reach + $offs[1]) / $profiles->step,
                $pen / $profiles->step,
            );
            foreach ([0, 1] as $side) {
                $inward = 0 === $side ? 1 : -1;
                $face = FaceEdge::near(
                    $mean,
                    ($profiles->reach + $offs[$side]) / $profiles->step,
                    $inward,
                    $within / $profiles->step,
                    $pen / $profiles->step,
                    $inside,
                    self::FAINTEST,
                );
                if (null === $face) {
                    return null;
                }
                $isLine[$side] = $face->isLine;
                $expected = $face->at * $profiles->step - $profiles->reach;
                $found[$side] = [];
                foreach ($profiles->rows as $k => $row) {
                    $t = $profiles->along[$k];
                    $here = $expected + $shift($t);
                    $edge = FaceEdge::near(
                        $row,
                        ($profiles->reach + $here) / $profiles->step,
                        $inward,
                        max(2.5 * $scale, 0.5 * $within) / $profiles->step,
                        $pen / $profiles->step,
                        $inside,
                        max(self::FAINTEST, 0.35 * $face->strength),
                        $face->isLine,
                    );
                    if (null !== $edge) {
                        $found[$side][] = [$t - $length / 2.0, $edge->at * $profiles->step - $profiles->reach];
                    }
                }
                if (\count($found[$side]) < max(3, self::LEAST_PART * \count($profiles->rows))) {
                    return null;
                }
            }
            [[$offs[0], $slopes[0]], [$offs[1], $slopes[1]]] = [self::line($found[0]), self::line($found[1])];
        }
        // Faces of one wall are parallel, unless there are few looks to tell: their slopes are taken together.
        [$left, $right] = [self::line($found[1]), self::line($found[0])];
        $slope = ($left[1] + $right[1]) / 2.0;
        [$o1, $s1] = self::offset($found[1], $slope);
        [$o0, $s0] = self::offset($found[0], $slope);
        // Both looks may have found the same line, or each the other's.
        if ($o1 - $o0 < max($scale, self::LEAST_OF_GUESS * $thickness)) {
            return null;
        }
        $floor = self::FLOOR_PX * $scale;
        $off = ($o0 + $o1) / 2.0;
        [$ux, $uy] = [($to->x - $from->x) / $length, ($to->y - $from->y) / $length];
        $at = static fn (float $t): Point => $from->plus(
            $t * $ux - ($off + $slope * ($t - $length / 2.0)) * $uy,
            $t * $uy + ($off + $slope * ($t - $length / 2.0)) * $ux,
        );

        return new ProbedWall(
            $at(0.0), $at($length), ($o1 - $o0) / hypot(1.0, $slope), hypot(
                hypot($s0, $s1) / 2.0,
                $floor / \M_SQRT2,
            ), hypot(hypot($s0, $s1), $floor * \M_SQRT2), false === $isLine[0] && false === $isLine[1],
            min(\count($found[0]), \count($found[1])) / \count($profiles->rows),
        );
    }

    /**
     * @param list<array{float, float}> $stretches
     *
     * @return list<array{float, float}>
     */
    private static function pieces(float $length, float $thickness, float $scale, array $stretches): array
    {
        $cut = min(0.25 * $length, $thickness / 2.0 + self::ENDS_MM);
        $stretches = [] === $stretches ? [[$cut, $length - $cut]] : $stretches;
        $total = array_sum(array_map(static fn (array $s): float => $s[1] - $s[0], $stretches));
        $count = max(self::PROFILES[0], min(self::PROFILES[1], (int) round($total / $scale / self::EVERY_PX)));
        $pieces = [];
        foreach ($stretches as [$from, $to]) {
            $n = max(1, (int) round($count * ($to - $from) / max(1e-9, $total)));
            for ($k = 0; $k < $n; ++$k) {
                $pieces[] = [$from + ($to - $from) * $k / $n, $from + ($to - $from) * ($k + 1) / $n];
            }
        }

        return $pieces;
    }

    /**
     * Darkness of what is between the faces, the lines along them left out.
     *
     * @param list<float> $profile
     */
    private static function inside(array $profile, float $low, float $high, float $pen): float
    {
        $margin = min($pen, 0.3 * ($high - $low));
        $part = \array_slice($profile, max(0, (int) round($low + $margin)), max(1, (int) round($high - $low - 2.0 * $margin)));
        sort($part);

        return $part[intdiv(\count($part), 2)] ?? 0.0;
    }

    /**
     * Theil–Sen: the median slope, then the median of what is left (Sen 1968, from memory).
     *
     * @param list<array{float, float}> $points
     *
     * @return array{float, float} offset and slope
     */
    private static function line(array $points): array
    {
        $slopes = [];
        $along = array_column($points, 0);
        $span = [] === $along ? 0.0 : max($along) - min($along);
        foreach ($points as $i => [$t, $o]) {
            foreach (\array_slice($points, $i + 1) as [$t2, $o2]) {
                if (abs($t2 - $t) > 0.2 * $span) {
                    $slopes[] = ($o2 - $o) / ($t2 - $t);
                }
            }
        }
        $slope = [] === $slopes ? 0.0 : Median::of($slopes);

        return [Median::of(array_map(static fn (array $p): float => $p[1] - $slope * $p[0], $points)), $slope];
    }

    /**
     * @param list<array{float, float}> $points
     *
     * @return array{float, float} offset for a given slope by the mean without what lies off, and its standard deviation
     */
    private static function offset(array $points, float $slope): array
    {
        $rest = array_map(static fn (array $p): float => $p[1] - $slope * $p[0], $points);
        $middle = Median::of($rest);
        $spread = 1.4826 * Median::of(array_map(static fn (float $r): float => abs($r - $middle), $rest));
        $kept = array_values(array_filter($rest, static fn (float $r): bool => abs($r - $middle) <= 2.5 * $spread + 1e-9));
        $mean = array_sum($kept) / \count($kept);

        return [$mean, max($spread, 1e-9) / sqrt(\count($kept))];
    }
}
