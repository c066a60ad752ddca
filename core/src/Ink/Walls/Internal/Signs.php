<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

/**
 * What the ink shows in a gap of a wall: lines that run through it as through windows, or the leaf and swing of a door.
 *
 * @internal
 */
final readonly class Signs
{
    /** part of the looks across a gap that show a line: a window; by trial (bench ink) */
    private const LINED = 0.55;
    /** part of sixteen looks along a quarter circle that show a swing; by trial (bench ink) */
    private const SWUNG = 0.62;
    /** part of fourteen looks along a leaf that show it; by trial (bench ink) */
    private const LEAF = 0.75;
    /** mm from a jamb within which the leaf is hung: common practice, no source */
    private const NEAR_JAMB_MM = 90.0;

    /**
     * @param array{list<string>, list<string>} $lines scan lines across level walls, and across plumb ones
     * @param array{float, float} $origin where the first scan line of either begins, mm
     */
    public function __construct(private array $lines, private array $origin, private float $cell, private int $level)
    {
    }

    /** Lines run through most of it. */
    public function isLined(Strip $wall, float $from, float $to): bool
    {
        $looks = 24;
        $seen = 0;
        $half = $wall->thickness / 2.0 + 1.5 * $this->cell;
        for ($k = 0; $k < $looks; ++$k) {
            $seen += $this->hasInk($wall, $from + ($to - $from) * (0.12 + 0.76 * ($k + 0.5) / $looks), -$half, $half) ? 1 : 0;
        }

        return $seen >= self::LINED * $looks;
    }

    /** Ink fills it: a column, or a solid wall that crosses. */
    public function isFilled(Strip $wall, float $from, float $to): bool
    {
        $half = 0.4 * $wall->thickness;
        $rows = max(2, (int) ($wall->thickness / $this->cell));
        $on = 0;
        for ($k = 0; $k < 12; ++$k) {
            for ($m = 0; $m < $rows; ++$m) {
                $n = -$half + 2.0 * $half * ($m + 0.5) / $rows;
                $on += $this->hasInk($wall, $from + ($to - $from) * ($k + 0.5) / 12, $n, $n) ? 1 : 0;
            }
        }

        return $on >= 0.85 * 12 * $rows;
    }

    /** One of the faces goes on. */
    public function hasFace(Strip $wall, float $from, float $to): bool
    {
        foreach ([-0.5, 0.5] as $side) {
            $on = 0;
            for ($k = 0; $k < 16; ++$k) {
                $on += $this->hasInk(
                    $wall,
                    $from + ($to - $from) * ($k + 0.5) / 16,
                    $side * $wall->thickness - 1.5 * $this->cell,
                    $side * $wall->thickness + 1.5 * $this->cell,
                ) ? 1 : 0;
            }
            if ($on >= 15) {
                return true;
            }
        }

        return false;
    }

    /** A leaf stands at a jamb, or its swing is drawn. */
    public function hasLeaf(Strip $wall, float $from, float $to): bool
    {
        $width = $to - $from;
        foreach ([-1.0, 1.0] as $side) {
            foreach ([$from, $to] as $jamb) {
                $inward = $jamb === $from ? 1.0 : -1.0;
                foreach ([$wall->thickness / 2.0, 0.0] as $face) {
                    $on = 0;
                    for ($k = 0; $k < 16; ++$k) {
                        $angle = \M_PI_2 * (0.12 + 0.76 * ($k + 0.5) / 16);
                        $n = $side * ($face + $width * sin($angle));
                        $t = $jamb + $inward * $width * cos($angle);
                        $on += $this->hasInk($wall, $t, $n - 1.6 * $this->cell, $n + 1.6 * $this->cell) || $this->hasInk(
                            $wall,
                            $t + 1.2 * $this->cell,
                            $n - $this->cell,
                            $n + $this->cell,
                        ) || $this->hasInk($wall, $t - 1.2 * $this->cell, $n - $this->cell, $n + $this->cell) ? 1 : 0;
                    }
                    if ($on >= self::SWUNG * 16) {
                        return true;
                    }
                }
                if ($this->leafAt($wall, $jamb, $side, $width)) {
                    return true;
                }
            }
        }

        return false;
    }

    private function leafAt(Strip $wall, float $jamb, float $side, float $width): bool
    {
        for ($off = -self::NEAR_JAMB_MM; $off <= self::NEAR_JAMB_MM; $off += $this->cell) {
            $on = 0;
            for ($k = 0; $k < 14; ++$k) {
                $n = $side * ($wall->thickness / 2.0 + $width * (0.15 + 0.65 * ($k + 0.5) / 14));
                $on += $this->hasInk($wall, $jamb + $off, $n - 0.6 * $this->cell, $n + 0.6 * $this->cell) ? 1 : 0;
            }
            if (
                $on >= self::LEAF * 14
                && !$this->hasInk(
                    $wall,
                    $jamb + $off,
                    $side * ($wall->thickness / 2.0 + 1.25 * $width),
                    $side * ($wall->thickness / 2.0 + 1.45 * $width),
                )
            ) {
                return true;
            }
        }

        return false;
    }

    private function hasInk(Strip $wall, float $along, float $low, float $high): bool
    {
        $k = $wall->plumb ? 1 : 0;
        $line = $this->lines[$k][(int) floor(($along - $this->origin[$k]) / $this->cell)] ?? '';
        $y0 = (int) floor(($wall->at + min($low, $high) - $this->origin[1 - $k]) / $this->cell);
        $y1 = (int) floor(($wall->at + max($low, $high) - $this->origin[1 - $k]) / $this->cell);
        for ($y = max(0, $y0); $y <= $y1 && $y < \strlen($line); ++$y) {
            if (\ord($line[$y]) >= $this->level) {
                return true;
            }
        }

        return false;
    }
}
