<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Ink\Page\AlignedInk;
use Plinth\Core\Ink\Page\Mask;

/**
 * The line drawn round a sheet: a rectangle without a gap that holds nearly all there is. A building has doors, and its dimensions lie
 * outside it.
 *
 * @internal
 */
final class SheetFrame
{
    /** part of the page that a frame encloses */
    private const LEAST_AREA = 0.45;
    /** part of all ink that may lie outside it */
    private const MOST_OUTSIDE = 0.03;
    /** cells that may be missing from its line */
    private const MISSING = 4;
    /** mm in the building: a wider line is a wall */
    private const WIDEST_MM = 160.0;
    /** mm, and cells, that its corners may be off */
    private const CORNER = [60.0, 6];
    /** part of a scan line that a side of it takes */
    private const LEAST_RUN = 0.5;
    /** mm from its outer face to its inner one that a wall is thick */
    private const WALL_MM = [60.0, 650.0];
    /** part of a side along which a wall's face runs, between what ends there */
    private const FACE = 0.55;
    /** cells beside its line that belong to it */
    private const BESIDE = 3;

    /**
     * @param list<string> $columns of the same ink
     *
     * @return array{int, int, int, int}|null first and last column, first and last row inside it
     */
    public static function within(AlignedInk $ink, array $columns, int $level): ?array
    {
        [$rows, $columns] = [self::inked($ink->rows, $level), self::inked($columns, $level)];
        [$level, $plumb] = [self::runs($rows), self::runs($columns)];
        $slack = self::CORNER[0] / $ink->cell + self::CORNER[1];
        $total = array_sum(array_map(static fn (string $row): int => substr_count($row, '1'), $rows));
        foreach ($plumb as $left => [$from, $to]) {
            $bottom = self::nearest($level, $from, $slack);
            $top = self::nearest($level, $to, $slack);
            $right = null === $bottom ? null : self::nearest($plumb, $level[$bottom][1], $slack);
            if (null === $bottom || null === $top || null === $right) {
                continue;
            }
            $off = max(
                abs($level[$bottom][0] - $left),
                abs($level[$top][0] - $left),
                abs($level[$top][1] - $right),
                abs($plumb[$right][0] - $bottom),
                abs($plumb[$right][1] - $top),
            );
            if ($off > $slack || ($right - $left) * ($top - $bottom) < self::LEAST_AREA * \count($rows) * \count($columns)) {
                continue;
            }
            if (self::isFace($rows, $columns, [$left, $right, $bottom, $top], $ink->cell)) {
                continue;
            }
            if (self::outside($rows, $columns, $level, $plumb, [$left, $right, $bottom, $top], $total) > self::MOST_OUTSIDE * $total) {
                continue;
            }
            // Its inner side: as long as rows and columns still run all along.
            $widest = (int) (self::WIDEST_MM / $ink->cell);
            $inner = [
                self::beyond($plumb, $left, 1, $widest), self::beyond($plumb, $right, -1, $widest),
                self::beyond($level, $bottom, 1, $widest), self::beyond($level, $top, -1, $widest),
            ];
            if ($inner[2] - $bottom <= $widest && $top - $inner[3] <= $widest) {
                return [$inner[0] + 1, $inner[1] - 1, $inner[2] + 1, $inner[3] - 1];
            }
        }

        return null;
    }

    /**
     * Whether another line runs along it as near as a wall is thick, on most sides and with gaps: it is the outer face of a building that
     * is drawn by two lines. The second line of a double frame has no gaps.
     *
     * @param list<string> $rows
     * @param list<string> $columns
     * @param array{int, int, int, int} $frame
     */
    private static function isFace(array $rows, array $columns, array $frame, float $cell): bool
    {
        [$left, $right, $bottom, $top] = $frame;
        [$nearest, $furthest] = [(int) ceil(self::WALL_MM[0] / $cell), (int) (self::WALL_MM[1] / $cell)];
        $faces = $whole = 0;
        $sides = [
            [$columns, $left, 1, $bottom, $top], [$columns, $right, -1, $bottom, $top],
            [$rows, $bottom, 1, $left, $right], [$rows, $top, -1, $left, $right],
        ];
        foreach ($sides as [$lines, $at, $inward, $from, $to]) {
            [$most, $isWhole] = [0.0, false];
            for ($off = $nearest; $off <= $furthest; ++$off) {
                $line = $lines[$at + $inward * $off] ?? '';
                $line |= $lines[$at + $inward * ($off + 1)] ?? '';
                $part = substr($line, $from + $off, max(1, $to - $from - 2 * $off));
                $most = max($most, substr_count($part, '1') / max(1, \strlen($part)));
                $isWhole = $isWhole || !str_contains($part, str_repeat('0', self::MISSING + 1));
            }
            $faces += $most >= self::FACE ? 1 : 0;
            $whole += $isWhole ? 1 : 0;
        }

        return $faces >= 3 && $whole < 4;
    }

    /**
     * Ink beyond a frame, but for further frames and the sheet's own edge.
     *
     * @param list<string> $rows
     * @param list<string> $columns
     * @param array<int, array{int, int}> $level runs of rows
     * @param array<int, array{int, int}> $plumb runs of columns
     * @param array{int, int, int, int} $frame
     */
    private static function outside(array $rows, array $columns, array $level, array $plumb, array $frame, int $total): int
    {
        [$left, $right, $bottom, $top] = $frame;
        [$left, $right, $bottom, $top] = [$left - self::BESIDE, $right + self::BESIDE, $bottom - self::BESIDE, $top + self::BESIDE];
        $outside = $total;
        for ($j = max(0, $bottom); $j <= $top && $j < \count($rows); ++$j) {
            $outside -= substr_count(substr($rows[$j], max(0, $left), $right - $left), '1');
        }
        foreach (array_keys($level) as $j) {
            $outside -= $j < $bottom || $j > $top ? substr_count($rows[$j], '1') : 0;
        }
        foreach (array_keys($plumb) as $i) {
            $outside -= $i < $left || $i > $right ? substr_count(substr($columns[$i], max(0, $bottom), $top - $bottom), '1') : 0;
        }

        return $outside;
    }

    /**
     * @param array<int, array{int, int}> $runs
     */
    private static function beyond(array $runs, int $at, int $step, int $most): int
    {
        for ($i = 0; $i <= $most && isset($runs[$at]); ++$i) {
            $at += $step;
        }

        return $at;
    }

    /**
     * @param list<string> $lines
     *
     * @return list<string>
     */
    private static function inked(array $lines, int $level): array
    {
        return array_map(static fn (string $line): string => Mask::of($line, $level), $lines);
    }

    /**
     * Where scan lines, with their neighbours, are inked along half of their length and more.
     *
     * @param list<string> $lines
     *
     * @return array<int, array{int, int}> by line, from and to
     */
    private static function runs(array $lines): array
    {
        $runs = [];
        $last = \count($lines) - 1;
        $gap = str_repeat('0', self::MISSING + 1);
        foreach ($lines as $j => $line) {
            $length = \strlen($line);
            if (substr_count($line, '1') < 0.2 * $length) {
                continue;
            }
            $line |= $lines[max(0, $j - 1)] | $lines[min($last, $j + 1)];
            $at = 0;
            foreach (explode($gap, $line) as $piece) {
                [$from, $to] = [$at + strspn($piece, '0'), $at + \strlen(rtrim($piece, '0'))];
                if ($to - $from >= self::LEAST_RUN * $length) {
                    $runs[$j] = [$from, $to];
                }
                $at += \strlen($piece) + self::MISSING + 1;
            }
        }

        return $runs;
    }

    /**
     * @param array<int, array{int, int}> $runs
     */
    private static function nearest(array $runs, int $at, float $slack): ?int
    {
        $best = null;
        foreach (array_keys($runs) as $j) {
            $best = abs($j - $at) <= $slack && (null === $best || abs($j - $at) < abs($best - $at)) ? $j : $best;
        }

        return $best;
    }
}
