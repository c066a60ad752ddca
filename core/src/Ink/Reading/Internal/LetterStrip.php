<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

/**
 * Lettering cut out of its page, level and at one size, for the net.
 *
 * @internal
 */
final class LetterStrip
{
    /** px of a strip: height of a capital letter, and the row that it stands on */
    private const CAPITAL = 14;
    private const FOOT = 19;
    /** px before the first letter and after the last one */
    private const MARGIN = 14;
    /** The ink that this part of a strip does not reach counts as full: some letters may be blotted. */
    private const FULL_QUANTILE = 0.97;
    private const LEAST_FULL = 0.25;
    private const MOST = 1.15;
    /** part of the letters' height that parts one word from another */
    private const APART = 0.5;
    /** part of the height from one look for ink to the next */
    private const LOOKS = 0.15;
    /** px that blur adds to a letter's height, and heights below which there is nothing to read */
    private const BLUR_PX = 0.6;
    private const LEAST_PX = 4.0;
    /** so many times its height a row may grow at either end */
    private const GROWS = 3.0;

    /**
     * The row as far as ink goes on: first and last letters that stand a little off belong to it.
     */
    public static function widened(LetteringInk $letters, Lettering $row): Lettering
    {
        $high = $row->height();
        $ends = [];
        foreach ([[$row->from, -1], [$row->to, 1]] as [$end, $way]) {
            $last = $end;
            for ($u = $end + $way; abs($u - $last) <= self::APART * $high && abs($u - $end) < self::GROWS * $high; $u += $way) {
                for ($v = $row->head; $v <= $row->foot; $v += self::LOOKS * $high) {
                    if (self::sample($letters, $row, $u, $v) > $letters->level) {
                        $last = $u;
                        break;
                    }
                }
            }
            $ends[] = $last;
        }

        return $row->between($ends[0], $ends[1]);
    }

    /** @return list<list<float>> columns of LetterNet::ROWS values each */
    public static function of(LetteringInk $letters, Lettering $row): array
    {
        $scale = self::CAPITAL / max(self::LEAST_PX, $row->height() - self::BLUR_PX);
        $width = (int) ($row->length() * $scale) + 2 * self::MARGIN;
        [$x, $y] = $row->middle();
        [$c, $s] = [cos($row->runs()) / $scale, sin($row->runs()) / $scale];
        $middle = (self::FOOT + self::FOOT - self::CAPITAL) / 2.0;
        $columns = [];
        $all = [];
        for ($i = 0; $i < $width; ++$i) {
            $u = $i - $width / 2.0;
            $column = [];
            for ($j = 0; $j < LetterNet::ROWS; ++$j) {
                $v = $j - $middle;
                $column[] = $all[] = $letters->at($x + $c * $u - $s * $v, $y + $s * $u + $c * $v) / 255.0;
            }
            $columns[] = $column;
        }
        sort($all);
        $full = max(self::LEAST_FULL, $all[(int) (self::FULL_QUANTILE * (\count($all) - 1))] ?? 1.0);

        return array_map(
            static fn (array $column): array => array_map(static fn (float $v): float => min(self::MOST, $v / $full), $column),
            $columns,
        );
    }

    /**
     * As the strip is seen upside down.
     *
     * @param list<list<float>> $columns
     *
     * @return list<list<float>>
     */
    public static function turned(array $columns): array
    {
        return array_reverse(array_map(array_reverse(...), $columns));
    }

    private static function sample(LetteringInk $letters, Lettering $row, float $u, float $v): int
    {
        [$c, $s] = [cos($row->direction), sin($row->direction)];
        $v += $row->slope * ($u - ($row->from + $row->to) / 2.0);

        return $letters->near($u * $c - $v * $s, $u * $s + $v * $c);
    }
}
