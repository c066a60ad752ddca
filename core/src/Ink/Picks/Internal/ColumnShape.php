<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Picks\Internal;

use Plinth\Core\Ink\Page\Blobs;
use Plinth\Core\Ink\Page\GreyRaster;

/**
 * A compact solid shape under a pick, dark or enclosed by a dark outline: its centre by the weight of its ink.
 *
 * @internal
 */
final readonly class ColumnShape
{
    /** half side of what lines and lettering do not survive, px */
    private const OPENING = 2;
    /** length to width that a column has at most: beyond, it is a piece of wall; common practice, no source */
    private const MOST_ASPECT = 3.0;
    /** A disc fills π/4 of its box, a square turned by 45° half of it. */
    private const LEAST_FILL = 0.45;

    private function __construct(public float $x, public float $y, public float $width, public float $height)
    {
    }

    /**
     * @param GreyRaster $window dark ink on light paper
     * @param int $x of the pick, px
     * @param float $level grey between ink and paper
     */
    public static function at(GreyRaster $window, int $x, int $y, float $level, float $mostPx): ?self
    {
        return self::solid($window, $x, $y, $level, $mostPx) ?? self::outlined($window, $x, $y, $level, $mostPx);
    }

    private static function solid(GreyRaster $window, int $x, int $y, float $level, float $mostPx): ?self
    {
        $dark = self::mask($window, $level, true);
        $core = self::eroded($dark, $window->width, $window->height, self::OPENING);
        $found = self::filled($core, $window->width, $window->height, $x, $y, self::OPENING + 1);
        if (null === $found) {
            return null;
        }
        [$left, $top, $right, $bottom, $count] = $found;
        [$w, $h] = [$right - $left + 1, $bottom - $top + 1];
        if (!self::isCompact($w, $h, $count, $mostPx - 2 * self::OPENING)) {
            return null;
        }

        return self::weighed($window, $left, $top, $right, $bottom, $level);
    }

    /** The light inside of a closed outline. */
    private static function outlined(GreyRaster $window, int $x, int $y, float $level, float $mostPx): ?self
    {
        $light = self::mask($window, $level, false);
        $found = self::filled($light, $window->width, $window->height, $x, $y, 0);
        if (null === $found) {
            return null;
        }
        [$left, $top, $right, $bottom, $count] = $found;
        [$w, $h] = [$right - $left + 1, $bottom - $top + 1];
        if (!self::isCompact($w, $h, $count, $mostPx) || min($w, $h) < 6) {
            return null;
        }
        // The middle of the light inside, each row and column by where it ends at half darkness.
        $across = self::middles($window, $left, $right, $top, $bottom, $level, false);
        $down = self::middles($window, $top, $bottom, $left, $right, $level, true);

        return null === $across || null === $down ? null : new self($across, $down, $w, $h);
    }

    private static function isCompact(int $w, int $h, int $count, float $mostPx): bool
    {
        return $w >= 2
            && $h >= 2
            && max($w, $h) <= $mostPx
            && max($w, $h) <= self::MOST_ASPECT * min($w, $h)
            && $count >= self::LEAST_FILL * $w * $h;
    }

    private static function weighed(GreyRaster $window, int $left, int $top, int $right, int $bottom, float $level): ?self
    {
        $across = self::middles($window, $left, $right, $top, $bottom, $level, false, true);
        $down = self::middles($window, $top, $bottom, $left, $right, $level, true, true);

        return null === $across || null === $down ? null : new self(
            $across,
            $down,
            $right - $left + 1 + 2 * self::OPENING,
            $bottom - $top + 1 + 2 * self::OPENING,
        );
    }

    /**
     * The mean of the rows' (or columns') middles, without the farthest fifth at either end: lines that run into the shape lengthen a
     * few rows only. Of a turned shape the middles wander to both sides alike.
     */
    private static function middles(
        GreyRaster $window,
        int $from,
        int $to,
        int $first,
        int $last,
        float $level,
        bool $down,
        bool $isDark = false,
    ): ?float {
        $grey = static fn (int $along, int $across): float => (float) \ord(
            $window->bytes[$down ? $along * $window->width + $across : $across * $window->width + $along],
        );
        $limit = $down ? $window->height : $window->width;
        $start = intdiv($from + $to, 2);
        $middles = [];
        for ($row = $first; $row <= $last; ++$row) {
            $ends = [];
            foreach ([-1, 1] as $step) {
                $end = null;
                $reach = $to - $from + 8;
                for ($i = $start; abs($i - $start) <= $reach && $i + $step >= 0 && $i + $step < $limit; $i += $step) {
                    [$here, $next] = [$grey($i, $row), $grey($i + $step, $row)];
                    if ($isDark ? ($here < $level && $next >= $level) : ($here >= $level && $next < $level)) {
                        $end = $i + 0.5 + $step * ($level - $here) / ($next - $here);
                        break;
                    }
                }
                if (null === $end) {
                    continue 2; // a row of a turned shape may not hold the middle of the box
                }
                $ends[] = $end;
            }
            $middles[] = ($ends[0] + $ends[1]) / 2.0;
        }
        if (\count($middles) < 2) {
            return null;
        }
        sort($middles);
        $cut = intdiv(\count($middles), 5);
        $kept = \array_slice($middles, $cut, \count($middles) - 2 * $cut);

        return array_sum($kept) / \count($kept);
    }

    /** Rows of '1' where it is ink (or paper), '0' elsewhere. */
    private static function mask(GreyRaster $window, float $level, bool $isDark): string
    {
        $map = '';
        for ($v = 0; $v < 256; ++$v) {
            $map .= ($v < $level) === $isDark ? '1' : '0';
        }

        return strtr($window->bytes, implode('', array_map(\chr(...), range(0, 255))), $map);
    }

    private static function eroded(string $mask, int $w, int $h, int $by): string
    {
        // Strings of digits and-ed: '1' & '1' is '1', '1' & '0' is '0'.
        $across = $mask;
        for ($k = 1; $k <= $by; ++$k) {
            $across &= substr($mask, $k).str_repeat('0', $k);
            $across &= str_repeat('0', $k).substr($mask, 0, -$k);
        }
        $both = $across;
        for ($k = 1; $k <= $by; ++$k) {
            $both &= substr($across, $k * $w).str_repeat('0', $k * $w);
            $both &= str_repeat('0', $k * $w).substr($across, 0, -$k * $w);
        }

        return $both;
    }

    /**
     * The connected piece nearest to a pixel within so many pixels.
     *
     * @return array{int, int, int, int, int}|null left, top, right, bottom, number of pixels; null where there is none or it leaves the
     *                                             window
     */
    private static function filled(string $mask, int $w, int $h, int $x, int $y, int $within): ?array
    {
        $best = null;
        $nearest = $within + 1;
        foreach (Blobs::joined(str_split($mask, max(1, $w)), false) as $blob) {
            foreach ($blob->runs as [$row, $from, $to]) {
                $off = max(abs($row - $y), $from - $x, $x - $to + 1);
                if ($off < $nearest) {
                    [$best, $nearest] = [$blob, $off];
                }
            }
        }
        if (null === $best) {
            return null;
        }
        [$left, $top, $right, $bottom] = [$best->box->left, $best->box->top, $best->box->right() - 1, $best->box->bottom() - 1];

        return $left <= 0 || $top <= 0 || $right >= $w - 1 || $bottom >= $h - 1
            ? null
            : [(int) $left, (int) $top, (int) $right, (int) $bottom, $best->ink];
    }
}
