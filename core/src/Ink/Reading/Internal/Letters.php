<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

use Plinth\Core\Ink\Page\Blob;
use Plinth\Core\Ink\Page\Blobs;
use Plinth\Core\Ink\Page\Mask;

/**
 * Ink without what can be no letter: among lines and hatching a recogniser looks for long, and reads them as words.
 *
 * @internal
 */
final class Letters
{
    /** ink from which a pixel counts as inked, 0 to 255 */
    private const LEVEL = 96;
    /** px: what has fewer is dirt */
    private const LEAST_INK = 3;
    /** how high letters that touch each other are, part of the least and of the most; and how long, part of their height */
    private const JOINED_HIGH = [2.0, 0.8];
    private const MOST_JOINED = 10.0;
    /** the part of their height, from the top, in which they are crossed, and how often over a piece as long as high; furniture is less */
    private const MIDDLE = [0.2, 0.8];
    private const CROSSED = 1.2;

    /**
     * @param list<string> $rows of ink, 0 for paper to 255
     * @param float $least how long a piece is at least, px: below it is dirt; a comma or a point stays
     * @param float $most beyond it is a line, or several letters that touch
     *
     * @return list<string> the same with all else blank
     */
    public static function in(array $rows, float $least, float $most): array
    {
        $marks = array_map(static fn (string $row): string => str_repeat("\0", \strlen($row)), $rows);
        $last = \count($rows) - 1;
        foreach (Blobs::joined(array_map(static fn (string $row): string => Mask::of($row, self::LEVEL), $rows)) as $blob) {
            $size = max($blob->box->width, $blob->box->height);
            $isLetter = $size >= $least && $size <= $most && $blob->ink >= self::LEAST_INK;
            foreach ($isLetter || self::areJoined($blob, $least, $most) ? $blob->runs : [] as [$y, $from, $to]) {
                // Letters are blurred by a pixel beyond the level that tells them.
                [$from, $to] = [max(0, $from - 1), min(\strlen($rows[$y]), $to + 1)];
                for ($v = max(0, $y - 1); $v <= min($last, $y + 1); ++$v) {
                    $marks[$v] = substr_replace($marks[$v], str_repeat("\xFF", $to - $from), $from, $to - $from);
                }
            }
        }

        return array_map(static fn (string $row, string $mark): string => $row & $mark, $rows, $marks);
    }

    /** Letters that touch each other are one piece: as high as one, and crossed again and again along its middle, level or upright. */
    private static function areJoined(Blob $blob, float $least, float $most): bool
    {
        [$long, $high] = [max($blob->box->width, $blob->box->height), min($blob->box->width, $blob->box->height)];
        if ($high < self::JOINED_HIGH[0] * $least || $high > self::JOINED_HIGH[1] * $most || $long > self::MOST_JOINED * $high) {
            return false;
        }
        $crossings = $blob->box->width > $blob->box->height ? self::crossedLevel($blob) : self::crossedUpright($blob);

        return $crossings > self::CROSSED * $long * (self::MIDDLE[1] - self::MIDDLE[0]);
    }

    /** Stretches of ink in the rows of its middle. */
    private static function crossedLevel(Blob $blob): int
    {
        $from = $blob->box->top + self::MIDDLE[0] * $blob->box->height - 0.5;
        $to = $blob->box->top + self::MIDDLE[1] * $blob->box->height - 0.5;

        return \count(array_filter($blob->runs, static fn (array $run): bool => $run[0] > $from && $run[0] < $to));
    }

    /** Stretches of ink in the columns of its middle: each begins where there is none in the row before. */
    private static function crossedUpright(Blob $blob): int
    {
        $left = (int) round($blob->box->left + self::MIDDLE[0] * $blob->box->width);
        $right = (int) round($blob->box->left + self::MIDDLE[1] * $blob->box->width);
        $begin = 0;
        $rows = [];
        foreach ($blob->runs as [$y, $from, $to]) {
            [$from, $to] = [max($left, $from), min($right, $to)];
            if ($from < $to) {
                $rows[$y][] = [$from, $to];
                $begin += $to - $from;
                foreach ($rows[$y - 1] ?? [] as [$p, $q]) {
                    $begin -= max(0, min($to, $q) - max($from, $p));
                }
            }
        }

        return $begin;
    }
}
