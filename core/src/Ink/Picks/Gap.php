<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Picks;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Page\Pen;
use Plinth\Core\Ink\Picks\Internal\Swing;

/**
 * The gap that a drawing shows in a wall: where its jambs stand, whether a window's lines run through it, and on which side of it a
 * door's leaf is drawn.
 *
 * How dark the wall's whole thickness is, taken along it: a solid, hatched or double-line wall is darker than its gap, and the
 * jambs are where the darkness passes half way between the two.
 */
final readonly class Gap
{
    /** Openings are no narrower and no wider than this, mm: common practice, no source. */
    private const WIDTH_MM = [350.0, 4500.0];
    /** px from one look across the wall to the next: twice for each pixel */
    private const STEP_PX = 0.5;
    /** part of the thickness that tells wall from gap; for lines that run through a gap those along its faces count too */
    private const BAND = 0.9;
    /** part of the thickness, with the blur of both faces */
    private const WHOLE = 1.04;
    /** part of a gap's length, in the middle, where a click means the gap and not its edge */
    private const MIDDLE = 0.7;
    /** A gap is at least so much lighter than its wall, part of the wall's own darkness. */
    private const LIGHTER = 0.35;
    /** mm of wall that are looked at on either side where the jambs are known otherwise, and what they are known to then */
    private const BESIDE_MM = 600.0;
    private const COARSE_MM = 20.0;
    /** px of wall that must stand beside a jamb */
    private const WALL_PX = 3.0;
    /** Lines run through it along most of it: a window. */
    private const LINED = 0.8;
    /** or between its faces, away from both, along half of it */
    private const INNER = 0.4;
    private const LINED_INSIDE = 0.45;
    /** Panes are drawn in one stroke: what runs along it is nowhere paler than so much of where it is darkest, else it is dashes. */
    private const EVEN = 0.2;

    /**
     * @param float $from along the wall's centre line from its beginning to the near jamb, mm
     * @param float $sigmaMm standard deviation of either jamb
     * @param bool $lined lines run through it, as through windows
     * @param string|null $leafAt which jamb the leaf is drawn at, near or far; null where none is seen
     * @param string|null $leafSide side of the wall, seen from its beginning, on which the leaf is drawn: left or right
     * @param bool $isDoor whether the leaf's swing is drawn too
     */
    private function __construct(
        public float $from,
        public float $width,
        public float $sigmaMm,
        public bool $lined,
        public ?string $leafAt = null,
        public ?string $leafSide = null,
        public bool $isDoor = false,
    ) {
    }

    /**
     * @param Point $from beginning of the wall's centre line, mm
     * @param Point $at near the middle of the gap
     *
     * @return self|null null where the wall has no gap there
     */
    public static function around(PageInk $pageInk, PixelToMm $map, Point $from, Point $to, float $thickness, Point $at): ?self
    {
        $length = $from->distanceTo($to);
        [$ux, $uy] = [($to->x - $from->x) / $length, ($to->y - $from->y) / $length];
        $along = ($at->x - $from->x) * $ux + ($at->y - $from->y) * $uy;
        $scale = $map->mmPerPixelAt($map->toPixel($at));
        $reach = self::WIDTH_MM[1] / self::MIDDLE + 600.0;
        [$start, $end] = [max(0.0, $along - $reach), min($length, $along + $reach)];
        $step = self::STEP_PX * $scale;
        $page = self::read($pageInk, $map, $from, $to, $start, $end, $thickness);
        if (null === $page) {
            return null;
        }
        $across = self::across($page, $from, $ux, $uy, $thickness, $scale);
        $profile = [];
        for ($t = $start; $t <= $end; $t += $step) {
            $profile[] = $across($t, self::BAND);
        }
        $jambs = self::jambs(
            $profile,
            ($along - $start) / $step,
            $scale / $step,
        ) ?? self::betweenLines($profile, ($along - $start) / $step, $scale / $step);
        if (null === $jambs) {
            return null;
        }
        [$near, $far, $dark, $light, $isSolid] = $jambs;
        [$near, $far] = [$start + $near * $step, $start + $far * $step];
        $width = $far - $near;
        $middle = ($near + $far) / 2.0;
        if ($width < self::WIDTH_MM[0] || $width > self::WIDTH_MM[1] || abs($along - $middle) > self::MIDDLE * $width / 2.0) {
            return null;
        }
        [$lined, $leafAt, $leafSide, $isDoor] = self::stands($page, $across, $from, $ux, $uy, $near, $far, $thickness, $dark, $scale);
        if ($isSolid) {
            // The line that is drawn across at a jamb lies half in the gap: it is as wide as the others of the same pen.
            $pen = $scale * min(
                Pen::PX[1],
                self::penPx($page, $from, $ux, $uy, $near, $far, $thickness, $scale, $dark, $lined, $leafAt, $leafSide),
            );
            [$near, $width] = [$near - $pen / 2.0, $width + $pen];
        }

        return new self($near, $width, 0.5 * $scale * (1.0 + 8.0 / max(8.0, $dark - $light)), $lined, $leafAt, $leafSide, $isDoor);
    }

    /**
     * What stands where a wall does not show, though its jambs are not plain on the page.
     *
     * @param Point $from beginning of the wall's centre line, mm
     * @param float $near mm from there to where it shows no more, and $far to where it shows again
     */
    public static function between(
        PageInk $pageInk,
        PixelToMm $map,
        Point $from,
        Point $to,
        float $thickness,
        float $near,
        float $far,
    ): self {
        $length = $from->distanceTo($to);
        [$ux, $uy] = [($to->x - $from->x) / $length, ($to->y - $from->y) / $length];
        $scale = $map->mmPerPixelAt($map->toPixel($from->plus(($near + $far) / 2.0 * $ux, ($near + $far) / 2.0 * $uy)));
        [$start, $end] = [max(0.0, $near - self::BESIDE_MM), min($length, $far + self::BESIDE_MM)];
        $page = self::read($pageInk, $map, $from, $to, $start, $end, $thickness);
        if (null === $page) {
            return new self($near, $far - $near, self::COARSE_MM, false);
        }
        $across = self::across($page, $from, $ux, $uy, $thickness, $scale);
        $profile = array_map(static fn (float $t): float => $across($t, self::BAND), range($start, $end, self::STEP_PX * $scale));
        sort($profile);
        $dark = $profile[(int) (0.75 * (\count($profile) - 1))];

        return new self(
            $near,
            $far - $near,
            self::COARSE_MM,
            ...self::stands($page, $across, $from, $ux, $uy, $near, $far, $thickness, $dark, $scale),
        );
    }

    /**
     * @param callable(Point): float $page
     *
     * @return callable(float, float): float how dark part of the thickness is on average, by mm along the wall and that part
     */
    private static function across(callable $page, Point $from, float $ux, float $uy, float $thickness, float $scale): callable
    {
        $rows = max(3, min(25, (int) round($thickness / $scale)));

        return static function (float $t, float $band) use ($page, $from, $ux, $uy, $thickness, $rows): float {
            $sum = 0.0;
            for ($k = 0; $k < $rows; ++$k) {
                $n = $thickness * (($k + 0.5) / $rows - 0.5) * $band;
                $sum += $page($from->plus($t * $ux - $n * $uy, $t * $uy + $n * $ux));
            }

            return $sum / $rows;
        };
    }

    /**
     * Reads the strip round the wall once.
     *
     * @return (callable(Point): float)|null how much darker than paper a place is, grey levels
     */
    private static function read(
        PageInk $pageInk,
        PixelToMm $map,
        Point $from,
        Point $to,
        float $start,
        float $end,
        float $thickness,
    ): ?callable {
        $length = $from->distanceTo($to);
        [$ux, $uy] = [($to->x - $from->x) / $length, ($to->y - $from->y) / $length];
        // Leaves stand off the wall by as much as an opening is wide.
        $beside = $thickness / 2.0 + 1300.0;
        $xs = [];
        $ys = [];
        foreach ([[$start, -$beside], [$end, -$beside], [$end, $beside], [$start, $beside]] as [$t, $n]) {
            $p = $map->toPixel($from->plus($t * $ux - $n * $uy, $t * $uy + $n * $ux));
            $xs[] = $p->x;
            $ys[] = $p->y;
        }
        [$left, $top] = [max(0, (int) floor(min($xs)) - 2), max(0, (int) floor(min($ys)) - 2)];
        $raster = $pageInk->window($left, $top, (int) ceil(max($xs)) + 2 - $left, (int) ceil(max($ys)) + 2 - $top);
        if (min($raster->width, $raster->height) < 8) {
            return null;
        }
        $counts = count_chars($raster->bytes, 1);
        $paper = self::quantile($counts, 0.7);
        $width = $raster->width;
        $height = $raster->height;
        $bytes = $raster->bytes;

        return static function (Point $mm) use ($map, $left, $top, $width, $height, $bytes, $paper): float {
            $p = $map->toPixel($mm);
            [$u, $v] = [$p->x - $left - 0.5, $p->y - $top - 0.5];
            [$i, $j] = [(int) floor($u), (int) floor($v)];
            if ($i < 0 || $j < 0 || $i >= $width - 1 || $j >= $height - 1) {
                return 0.0;
            }
            $k = $j * $width + $i;
            $upper = \ord($bytes[$k]) + (\ord($bytes[$k + 1]) - \ord($bytes[$k])) * ($u - $i);
            $lower = \ord($bytes[$k + $width]) + (\ord($bytes[$k + $width + 1]) - \ord($bytes[$k + $width])) * ($u - $i);

            return max(0.0, $paper - ($upper + ($lower - $upper) * ($v - $j)));
        };
    }

    /**
     * @param list<float> $profile
     *
     * @return array{float, float, float, float, bool}|null near and far jamb in samples, the wall's darkness and the gap's, and whether
     *                                                      both jambs are edges of a solid wall
     */
    private static function jambs(array $profile, float $at, float $perPx): ?array
    {
        $n = \count($profile);
        $centre = (int) round($at);
        if ($n < 12 || $centre < 2 || $centre > $n - 3) {
            return null;
        }
        $sorted = $profile;
        sort($sorted);
        $dark = $sorted[(int) (0.75 * ($n - 1))];
        $near = \array_slice($profile, max(0, $centre - (int) (4 * $perPx)), (int) (8 * $perPx) + 1);
        sort($near);
        $light = $near[intdiv(\count($near), 2)];
        if ($dark < 12.0 || $light > (1.0 - self::LIGHTER) * $dark) {
            return null;
        }
        $level = ($dark + $light) / 2.0;
        $stands = (int) ceil(self::WALL_PX * $perPx);
        $found = [];
        foreach ([-1, 1] as $way) {
            for ($i = $centre; $i + $way * $stands >= 0 && $i + $way * $stands < $n; $i += $way) {
                // A line across the gap is no wall: what stands beyond must stay dark.
                $beyond = \count(array_filter(range(0, $stands), static fn (int $k): bool => $profile[$i + $way * $k] >= $level));
                if ($profile[$i] >= $level && $beyond >= 0.8 * ($stands + 1)) {
                    $found[] = self::settled($profile, $i, $way, $light, $perPx);
                    break;
                }
            }
        }

        return 2 === \count($found) ? [$found[0][0], $found[1][0], $dark, $light, !$found[0][1] && !$found[1][1]] : null;
    }

    /**
     * Where a jamb is: the middle of the line drawn across the wall there, where there is one, else where the wall itself begins.
     *
     * @param list<float> $profile
     * @param int $at the first sample that belongs to the wall
     *
     * @return array{float, bool} sample, and whether it is the middle of a line
     */
    private static function settled(array $profile, int $at, int $way, float $light, float $perPx): array
    {
        $n = \count($profile);
        $get = static fn (float $k): float => $profile[max(0, min($n - 1, (int) round($k)))];
        $peak = $at;
        for ($k = 0; $k <= Pen::PX[1] * $perPx; ++$k) {
            $peak = $get($at + $way * $k) > $get($peak) ? max(0, min($n - 1, $at + $way * $k)) : $peak;
        }
        $behind = [];
        for ($k = 1.5 * Pen::PX[1] * $perPx; $k <= 4.0 * Pen::PX[1] * $perPx; ++$k) {
            $behind[] = $get($peak + $way * $k);
        }
        sort($behind);
        $wall = $behind[intdiv(\count($behind), 2)];
        $top = $get($peak);
        $isLine = $top > 1.25 * $wall + 4.0;
        $cross = static function (float $level, int $from, int $step) use ($profile, $n): float {
            for ($i = $from; $i > 0 && $i < $n - 1; $i += $step) {
                if ($profile[$i] < $level) {
                    return $i - $step * ($level - $profile[$i]) / max(1e-9, $profile[$i - $step] - $profile[$i]);
                }
            }

            return $from;
        };
        $gapSide = $cross(($top + ($isLine ? max($light, $wall) : $light)) / 2.0, $peak, -$way);

        return $isLine ? [($gapSide + $cross(($top + max($light, $wall)) / 2.0, $peak, $way)) / 2.0, true] : [$gapSide, false];
    }

    /**
     * In a wall of two lines a window is as dark as the wall: its jambs are the lines across, and more lines run between them than beside.
     *
     * @param list<float> $profile
     *
     * @return array{float, float, float, float, bool}|null as jambs()
     */
    private static function betweenLines(array $profile, float $at, float $perPx): ?array
    {
        $n = \count($profile);
        $sorted = $profile;
        sort($sorted);
        $full = $sorted[(int) (0.995 * ($n - 1))];
        $usual = $sorted[intdiv($n, 2)];
        if ($full < 20.0 || $full < 1.8 * $usual) {
            return null;
        }
        $least = $usual + 0.5 * ($full - $usual);
        $found = [];
        foreach ([-1, 1] as $way) {
            for ($i = (int) round($at); $i > 0 && $i < $n - 1; $i += $way) {
                if ($profile[$i] >= $least) {
                    $found[] = self::settled($profile, $i, $way, $usual, $perPx);
                    break;
                }
            }
        }
        if (2 !== \count($found)) {
            return null;
        }
        $pen = Pen::PX[1] * $perPx;
        $median = static function (float $from, float $to, float $otherwise) use ($profile, $n): float {
            $part = \array_slice($profile, max(0, (int) round($from)), max(1, (int) round(min($n - 1.0, $to) - max(0.0, $from))));
            sort($part);

            return $part[intdiv(\count($part), 2)] ?? $otherwise;
        };
        [[$near], [$far]] = $found;
        $inside = $median($near + $pen, $far - $pen, 0.0);
        // Where the wall ends at a jamb, its other side has to tell.
        $beside = min($median($near - 5.0 * $pen, $near - $pen, \INF), $median($far + $pen, $far + 5.0 * $pen, \INF));

        return $inside > 1.15 * $beside ? [$near, $far, $full, $inside, false] : null;
    }

    /**
     * How wide the pen is by its ink: what a line takes of the paper's light, over what solid ink takes.
     *
     * @param callable(Point): float $page
     *
     * @return float px; 0 where no line is there to tell
     */
    private static function penPx(
        callable $page,
        Point $from,
        float $ux,
        float $uy,
        float $near,
        float $far,
        float $thickness,
        float $scale,
        float $dark,
        bool $lined,
        ?string $leafAt,
        ?string $leafSide,
    ): float {
        $at = static fn (float $t, float $n): float => $page($from->plus($t * $ux - $n * $uy, $t * $uy + $n * $ux));
        $step = 0.25 * $scale;
        $pens = [];
        for ($k = 0; $k < 9; ++$k) {
            if ($lined) {
                // Across the lines of a window: all their ink over their number.
                $t = $near + ($far - $near) * (0.2 + 0.6 * $k / 8);
                $row = array_map(static fn (float $n): float => $at($t, $n), range(-0.65 * $thickness, 0.65 * $thickness, $step));
            } elseif (null !== $leafSide) {
                $n = ('left' === $leafSide ? 1.0 : -1.0) * ($thickness / 2.0 + ($far - $near) * (0.25 + 0.5 * $k / 8));
                $jamb = 'near' === $leafAt ? $near : $far;
                $row = array_map(static fn (float $t): float => $at($t, $n), range($jamb - 130.0, $jamb + 130.0, $step));
            } else {
                return 0.0;
            }
            $most = max($row);
            $lines = 0;
            $above = false;
            foreach ($row as $v) {
                $lines += $v > 0.5 * $most && !$above ? 1 : 0;
                $above = $v > 0.5 * $most;
            }
            $pens[] = $most > 0.2 * $dark ? array_sum(
                array_map(static fn (float $v): float => $v > 0.12 * $most ? $v : 0.0, $row),
            ) * 0.25 / $dark / max(1, $lines) : 0.0;
        }
        sort($pens);

        return $pens[4];
    }

    /**
     * What stands in a gap: lines of a window, a door's leaf with its swing, or neither.
     *
     * @param callable(Point): float $page
     * @param callable(float, float): float $across how dark part of the thickness is, by mm along the wall
     *
     * @return array{bool, string|null, string|null, bool} whether lines run through it, where a leaf is drawn, and whether its swing is
     */
    private static function stands(
        callable $page,
        callable $across,
        Point $from,
        float $ux,
        float $uy,
        float $near,
        float $far,
        float $thickness,
        float $dark,
        float $scale,
    ): array {
        $lined = static fn (float $band): float => \count(array_filter(
            range(2, 22),
            static fn (int $k): bool => $across($near + ($far - $near) * $k / 24, $band) > 0.06 * $dark + 2.0,
        )) / 21;
        $swing = Swing::of(
            static fn (float $t, float $n): float => $page($from->plus($t * $ux - $n * $uy, $t * $uy + $n * $ux)),
            $near,
            $far,
            $thickness,
            $dark,
            $scale,
        );
        $tones = array_map(
            static fn (int $k): float => $across($near + ($far - $near) * (0.12 + 0.76 * $k / 80.0), self::WHOLE),
            range(0, 80),
        );
        sort($tones);
        // A threshold along a face under an open leaf is no window, and dashes are the edge of something above.
        $isWindow = !$swing->isDoor && $tones[8] > self::EVEN * $tones[72] && (
            $lined(self::INNER) > self::LINED_INSIDE
            || $lined(self::BAND) > self::LINED
            || (!$swing->swings && $lined(self::WHOLE) > self::LINED)
        );

        return $isWindow ? [true, null, null, false] : [false, $swing->leafAt, $swing->leafSide, $swing->isDoor];
    }

    /** @param array<int, int> $counts */
    private static function quantile(array $counts, float $part): int
    {
        $wanted = $part * array_sum($counts);
        $sum = 0;
        foreach ($counts as $value => $count) {
            $sum += $count;
            if ($sum >= $wanted) {
                return $value;
            }
        }

        return 255;
    }
}
