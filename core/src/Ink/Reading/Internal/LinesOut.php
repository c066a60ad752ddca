<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

/**
 * Ink without its long straight lines, so that figures that touch a dimension line stand free. Where a line runs through a figure, what
 * it covers of the figure stays.
 *
 * All work is done on whole rows at once: rows of '1' for ink and '0' for paper are or-ed and and-ed as they are.
 *
 * @internal
 */
final class LinesOut
{
    /** Lines are longer than any letter, part of the height of lettering. */
    private const LONGER = 2.5;
    /** degrees that lines lean off their direction, as drawn by hand or photographed; with a pen's width it bears as much again */
    private const LEANS = [-1.3, 0.0, 1.3];
    /** degrees: beyond this whole rows are no help */
    private const NEARLY_LEVEL = 8.0;
    /** px: pixels of a slanting line lie no further apart along it */
    private const NEXT = 2;
    /** A line's width is bridged where a figure goes on beyond it, part of the height of lettering: common practice, no source. */
    private const BRIDGED = 0.22;

    /**
     * @param list<string> $rows
     * @param list<float> $directions that lines run in, degrees from −45 to 45 with y down
     * @param float $size of lettering, px
     * @param callable(): void $goesOn asked now and then
     *
     * @return list<string> rows
     */
    public static function of(array $rows, array $directions, float $size, callable $goesOn): array
    {
        $width = \strlen($rows[0] ?? '');
        $lines = self::lines($rows, $directions, (int) round(self::LONGER * $size), $goesOn);
        $all = '';
        foreach ($rows as $y => $row) {
            $all .= $row & self::complement($lines[$y]);
        }
        $reach = max(1, (int) round(self::BRIDGED * $size / 2.0));
        $closed = self::shrunk(self::grown($all, $width, $reach), $width, $reach);

        return str_split($all | ($closed & implode('', $rows)), max(1, $width));
    }

    /**
     * @param list<string> $rows
     * @param list<float> $directions
     * @param callable(): void $goesOn
     *
     * @return array<int, string> rows
     */
    private static function lines(array $rows, array $directions, int $long, callable $goesOn): array
    {
        $lines = array_map(static fn (string $row): string => str_repeat('0', \strlen($row)), $rows);
        foreach ($directions as $k => $degrees) {
            if ($k > 0 || abs($degrees) > self::NEARLY_LEVEL) {
                self::addSlanting($rows, $lines, deg2rad($degrees), $long);
                $goesOn();
                self::addSlanting($rows, $lines, deg2rad($degrees + 90.0), $long);
                $goesOn();
                continue;
            }
            foreach (self::LEANS as $leans) {
                $slope = tan(deg2rad($degrees + $leans));
                self::addAlong($rows, $lines, $slope, $long);
                $goesOn();
                self::addAcross($rows, $lines, -$slope, $long);
                $goesOn();
            }
        }

        return $lines;
    }

    /** Grown by some pixels either way. */
    public static function grown(string $mask, int $width, int $reach): string
    {
        foreach ([1, $width] as $step) {
            for ($done = 0; $done < $reach; ++$done) {
                $blank = str_repeat('0', $step);
                // What runs over the end of a row is a pixel at the page's rim.
                $mask = $mask | (substr($mask, $step).$blank) | ($blank.substr($mask, 0, -$step));
            }
        }

        return $mask;
    }

    private static function shrunk(string $mask, int $width, int $reach): string
    {
        return self::complement(self::grown(self::complement($mask), $width, $reach));
    }

    private static function complement(string $mask): string
    {
        return strtr($mask, '01', '10');
    }

    /**
     * Lines in any direction: inked pixels are sorted along it, in strips as wide as a pixel.
     *
     * @param list<string> $rows
     * @param array<int, string> $lines to which what is found is added, row by row
     * @param float $along radians with y down
     */
    private static function addSlanting(array $rows, array &$lines, float $along, int $long): void
    {
        [$c, $s] = [cos($along), sin($along)];
        $strips = [];
        foreach ($rows as $y => $row) {
            $end = \strlen($row);
            for ($x = strcspn($row, '1'); $x < $end; ++$x) {
                if ('1' !== $row[$x]) {
                    $x += strcspn($row, '1', $x) - 1;
                    continue;
                }
                // The place along the line leads, so that whole numbers sort by it; 2²⁰ px lie before the page at most.
                $strips[(int) round($y * $c - $x * $s)][] = ((int) round($x * $c + $y * $s) + 1048576) << 40 | $y << 20 | $x;
            }
        }
        foreach ($strips as $strip) {
            if (\count($strip) < $long) {
                continue;
            }
            sort($strip);
            $first = 0;
            foreach ($strip as $k => $pixel) {
                $next = $strip[$k + 1] ?? null;
                if (null !== $next && ($next >> 40) - ($pixel >> 40) <= self::NEXT) {
                    continue;
                }
                if (($pixel >> 40) - ($strip[$first] >> 40) + 1 >= $long) {
                    for ($i = $first; $i <= $k; ++$i) {
                        [$y, $x] = [$strip[$i] >> 20 & 1048575, $strip[$i] & 1048575];
                        $lines[$y] = substr_replace($lines[$y], '1', $x, 1);
                    }
                }
                $first = $k + 1;
            }
        }
    }

    /**
     * Lines that run level or nearly so: rows are put together along the slope.
     *
     * @param list<string> $rows
     * @param array<int, string> $lines to which what is found is added, row by row
     * @param float $slope dy/dx, −1 to 1
     */
    private static function addAlong(array $rows, array &$lines, float $slope, int $long): void
    {
        $height = \count($rows);
        $width = \strlen($rows[0] ?? '');
        $run = str_repeat('1', $long);
        $pieces = self::pieces($width, $slope);
        $drops = array_column($pieces, 2);
        $lowest = $height - 1 - min([0, ...$drops]);
        for ($y = -max([0, ...$drops]); $y <= $lowest; ++$y) {
            $row = '';
            foreach ($pieces as [$from, $n, $drop]) {
                $row .= isset($rows[$y + $drop]) ? substr($rows[$y + $drop], $from, $n) : str_repeat('0', $n);
            }
            for ($x = strpos($row, $run); false !== $x; $x = strpos($row, $run, $x)) {
                $end = $x + strspn($row, '1', $x);
                foreach ($pieces as [$from, $n, $drop]) {
                    $a = max($x, $from);
                    $b = min($end, $from + $n);
                    if ($b > $a) {
                        $lines[$y + $drop] = substr_replace($lines[$y + $drop], str_repeat('1', $b - $a), $a, $b - $a);
                    }
                }
                $x = $end;
            }
        }
    }

    /**
     * Lines that run plumb or nearly so: rows are shifted along the slope, and then and-ed with those below.
     *
     * @param list<string> $rows
     * @param array<int, string> $lines to which what is found is added, row by row
     * @param float $slope dx/dy, −1 to 1
     */
    private static function addAcross(array $rows, array &$lines, float $slope, int $long): void
    {
        $width = \strlen($rows[0] ?? '');
        $pad = (int) ceil(abs($slope) * \count($rows));
        $wide = $width + $pad;
        $all = '';
        $shifts = [];
        foreach ($rows as $y => $row) {
            $shift = (int) round(-$slope * $y) + ($slope > 0.0 ? $pad : 0);
            $shifts[] = $shift = max(0, min($pad, $shift));
            $all .= str_repeat('0', $shift).$row.str_repeat('0', $pad - $shift);
        }
        $all = self::reaching($all, $wide, $long, true);
        if (!str_contains($all, '1')) {
            return;
        }
        $all = self::reaching($all, $wide, $long, false);
        foreach ($shifts as $y => $shift) {
            $lines[$y] |= substr($all, $y * $wide + $shift, $width);
        }
    }

    /** Each row and-ed with so many rows below it, or or-ed with so many above; by doubling. */
    private static function reaching(string $all, int $width, int $rows, bool $isAnd): string
    {
        for ($done = 1; $done < $rows; $done += $step) {
            $step = min($done, $rows - $done);
            $blank = str_repeat('0', min(\strlen($all), $step * $width));
            $all = $isAnd
                ? $all & (substr($all, $step * $width).$blank)
                : $all | substr($blank.$all, 0, \strlen($all));
        }

        return $all;
    }

    /** @return list<array{int, int, int}> first column, columns, and how far down, for each piece of a row along a slope */
    private static function pieces(int $width, float $slope): array
    {
        $pieces = [];
        $from = 0;
        $drop = 0;
        for ($x = 1; $x <= $width; ++$x) {
            $here = (int) round($slope * $x);
            if ($here !== $drop || $x === $width) {
                $pieces[] = [$from, $x - $from, $drop];
                [$from, $drop] = [$x, $here];
            }
        }

        return $pieces;
    }
}
