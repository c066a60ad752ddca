<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

use Plinth\Core\Numerics\DisjointSets;

/** Connected pieces of ink, found by joining the runs of neighbouring rows. */
final class Blobs
{
    /** Ink stands off the paper by this part of the page's contrast at least. */
    private const THRESHOLD = 0.22;
    /** grey levels: less than this is the grain of the paper */
    private const GRAIN = 15;

    /** @return list<Blob> */
    public static function of(GreyRaster $small, Paper $paper): array
    {
        if ($paper->isBlank()) {
            return [];
        }
        $raster = $paper->lightOnDark ? $small->inverted() : $small;

        return self::joined(self::inkRows($raster, $paper));
    }

    /**
     * Pieces of what is not ink of the given blobs, inside a page of this size: what they enclose, and the rest.
     *
     * @param list<Blob> $blobs
     *
     * @return list<Blob>
     */
    public static function enclosed(array $blobs, int $width, int $height): array
    {
        $rows = array_fill(0, $height, str_repeat('0', $width));
        foreach ($blobs as $blob) {
            foreach ($blob->runs as [$y, $from, $to]) {
                // Corner to corner is closed for ink; widening the run by one keeps the paper from slipping through.
                $from = max(0, $from - 1);
                $to = min($width, $to + 1);
                $rows[$y] = substr_replace($rows[$y], str_repeat('1', $to - $from), $from, $to - $from);
            }
        }

        return self::joined(array_map(static fn (string $row): string => strtr($row, '01', '10'), $rows));
    }

    /** @return list<string> rows of '1' for ink and '0' for paper */
    private static function inkRows(GreyRaster $raster, Paper $paper): array
    {
        $all = implode('', array_map(\chr(...), range(0, 255)));
        $tables = [];
        $rows = [];
        for ($y = 0; $y < $raster->height; ++$y) {
            $row = '';
            for ($x = 0; $x < $raster->width; $x += $paper->cell) {
                $limit = (int) max(0, $paper->at($x, $y) - max(self::GRAIN, self::THRESHOLD * $paper->contrast));
                $tables[$limit] ??= str_repeat('1', $limit).str_repeat('0', 256 - $limit);
                $row .= strtr($raster->row($y, $x, min($paper->cell, $raster->width - $x)), $all, $tables[$limit]);
            }
            $rows[] = $row;
        }

        return $rows;
    }

    /**
     * @param array<int, string> $rows of '1' and '0'
     * @param bool $corners whether pixels that touch at a corner belong together: ink does, what it encloses does not
     *
     * @return list<Blob> in the order of their first pixels
     */
    public static function joined(array $rows, bool $corners = true): array
    {
        $runs = [];
        $above = [];
        $sets = new DisjointSets();
        $apart = $corners ? 0 : 1;
        foreach ($rows as $y => $row) {
            $here = [];
            $n = \strlen($row);
            for ($x = strcspn($row, '1'); $x < $n; $x += strcspn($row, '1', $x)) {
                $end = $x + strspn($row, '1', $x);
                $here[] = \count($runs);
                $runs[] = [$y, $x, $end];
                $x = $end;
            }
            $i = 0;
            foreach ($here as $run) {
                [, $from, $to] = $runs[$run];
                while ($i < \count($above) && $runs[$above[$i]][2] < $from + $apart) {
                    ++$i;
                }
                for ($j = $i; $j < \count($above) && $runs[$above[$j]][1] <= $to - $apart; ++$j) {
                    $sets->unite($run, $above[$j]);
                }
            }
            $above = $here;
        }
        $groups = [];
        foreach ($runs as $i => $run) {
            $groups[$sets->root($i)][] = $run;
        }

        return array_map(static fn (array $runs): Blob => new Blob($runs), array_values($groups));
    }
}
