<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

/** Drawn lines: an edge where ink begins, and beside it one where ink ends again within a pen's width. @internal */
final class Strokes
{
    /** mm in the building; what is shorter is a letter's or a tick's */
    public const LEAST_MM = 110.0;

    /**
     * @param list<string> $lines scan lines across the direction
     * @param float $cell mm
     *
     * @return list<Stroke> from one side of the scan lines to the other
     */
    public static function in(array $lines, float $cell, int $level): array
    {
        return self::between(...Chains::in($lines, $level, max(1.3, 14.0 / $cell), max(4, (int) (self::LEAST_MM / $cell))), cell: $cell);
    }

    /**
     * @param list<Chain> $up edges where ink begins
     * @param list<Chain> $down edges where it ends
     *
     * @return list<Stroke>
     */
    public static function between(array $up, array $down, float $cell): array
    {
        usort($down, static fn (Chain $a, Chain $b): int => $a->height() <=> $b->height());
        $heights = array_map(static fn (Chain $c): float => $c->height(), $down);
        $pen = Pen::cells($cell);
        $strokes = [];
        foreach ($up as $a) {
            $low = $a->height();
            for ($k = self::first($heights, $low + 0.3); $k < \count($down) && $heights[$k] - $low <= $pen; ++$k) {
                $b = $down[$k];
                $from = max($a->first, $b->first);
                $to = min($a->last, $b->last) + 1;
                if (($to - $from) * $cell >= self::LEAST_MM) {
                    $strokes[] = new Stroke($from, $to, $a, $b);
                    break; // beyond the first lies another line
                }
            }
        }
        usort($strokes, static fn (Stroke $a, Stroke $b): int => $a->height() <=> $b->height());

        return $strokes;
    }

    /** @param list<float> $heights in order */
    private static function first(array $heights, float $at): int
    {
        [$a, $b] = [0, \count($heights)];
        while ($a < $b) {
            $m = intdiv($a + $b, 2);
            if ($heights[$m] < $at) {
                $a = $m + 1;
            } else {
                $b = $m;
            }
        }

        return $a;
    }
}
