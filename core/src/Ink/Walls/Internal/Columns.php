<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\AlignedInk;
use Plinth\Core\Ink\Page\Mask;
use Plinth\Core\Ink\Walls\ProposedColumn;

/**
 * Squares of full ink that are wider than the wall they stand in, of one size, and in rows both ways: what stands alone may be anything.
 *
 * @internal
 */
final class Columns
{
    /** Columns are no narrower and no wider than this, mm: common practice, no source. */
    private const SIDE_MM = [180.0, 1000.0];
    /** ink of a cell that counts as full, 0 to 255 */
    private const FULL = 150;
    /** mm beyond a square at which paper is looked for, side by side: a wall's face may run close by in one of them */
    private const AROUND_MM = [20.0, 60.0, 100.0];
    /** part of a side that may be inked all the same: of all four, and of one */
    private const MOST_INKED = [0.62, 0.9];
    /** mm, and cells, that it is wider than the solid wall it stands in */
    private const WIDER = [25.0, 2.0];
    /** mm that columns of one row are off its line, and lie apart at least */
    private const IN_ROW_MM = [80.0, 1500.0];
    /** part of its side by which columns of one size differ, or cells */
    private const ALIKE = [0.1, 1.5];
    /** part of two squares' common half side within which they are one */
    private const ONE = 0.8;

    /**
     * @param list<WallLine> $walls
     *
     * @return list<ProposedColumn>
     */
    public static function of(AlignedInk $ink, array $walls): array
    {
        [$c, $s] = [cos($ink->turn), sin($ink->turn)];
        $masks = array_map(static fn (string $row): string => Mask::of($row, self::FULL), $ink->rows);
        $found = [];
        foreach (self::squares($masks, $ink->columns, $ink->cell) as [$size, $x, $y]) {
            if (self::standsFree($masks, $x, $y, $size, $ink->cell)) {
                [$u, $v] = [$ink->left + ($x + 0.5) * $ink->cell, $ink->bottom + ($y + 0.5) * $ink->cell];
                $at = new Point($c * $u - $s * $v, $s * $u + $c * $v);
                if (!self::isOfWall($at, $size * $ink->cell, $walls, $ink->cell)) {
                    $found[] = [$u, $v, $size * $ink->cell, $at];
                }
            }
        }
        $columns = [];
        foreach ($found as [$u, $v, $side, $at]) {
            [$level, $plumb] = [0, 0];
            foreach ($found as [$otherU, $otherV, $otherSide]) {
                if (abs($otherSide - $side) <= max(self::ALIKE[1] * $ink->cell, self::ALIKE[0] * $side)) {
                    [$du, $dv] = [abs($otherU - $u), abs($otherV - $v)];
                    $level += $dv < self::IN_ROW_MM[0] && $du > self::IN_ROW_MM[1] ? 1 : 0;
                    $plumb += $du < self::IN_ROW_MM[0] && $dv > self::IN_ROW_MM[1] ? 1 : 0;
                }
            }
            if (min($level, $plumb) >= 1 && max($level, $plumb) >= 2) {
                $columns[] = new ProposedColumn($at, $side, $side, $ink->turn, min(0.95, 0.5 + 0.08 * ($level + $plumb)));
            }
        }

        return $columns;
    }

    /**
     * The largest squares that are full of ink, no two at one place.
     *
     * @param list<string> $masks
     *
     * @return list<array{int, float, float}> side in cells, and its middle, the largest first
     */
    private static function squares(array $masks, int $columns, float $cell): array
    {
        [$least, $most] = [(int) ceil(self::SIDE_MM[0] / $cell), (int) (self::SIDE_MM[1] / $cell)];
        $seeds = [];
        // The square that ends at a cell is one larger than the least of those that end before it, below it, and across.
        $above = array_fill(0, $columns + 1, 0);
        foreach ($masks as $j => $mask) {
            $here = array_fill(0, $columns + 1, 0);
            for ($i = strpos($mask, '1'); false !== $i; $i = strpos($mask, '1', $i + 1)) {
                $side = 1 + min($above[$i], $above[$i + 1], $here[$i]);
                $here[$i + 1] = $side;
                if ($side >= $least && $side <= $most) {
                    $seeds[] = [$side, $i - ($side - 1) / 2.0, $j - ($side - 1) / 2.0];
                }
            }
            $above = $here;
        }
        usort($seeds, static fn (array $a, array $b): int => $b[0] <=> $a[0]);
        $near = [];
        $squares = [];
        foreach ($seeds as [$side, $x, $y]) {
            [$column, $row] = [intdiv((int) $x, $least), intdiv((int) $y, $least)];
            for ($k = 0; $k < 9; ++$k) {
                foreach ($near[$column + $k % 3 - 1][$row + intdiv($k, 3) - 1] ?? [] as [$otherX, $otherY, $otherSide]) {
                    if (max(abs($otherX - $x), abs($otherY - $y)) < self::ONE * ($otherSide + $side) / 2.0 + 0.5) {
                        continue 3;
                    }
                }
            }
            $near[$column][$row][] = [$x, $y, $side];
            $squares[] = [$side, $x, $y];
        }

        return $squares;
    }

    /**
     * Whether there is paper round about it, or a thinner wall.
     *
     * @param list<string> $masks
     */
    private static function standsFree(array $masks, float $x, float $y, int $size, float $cell): bool
    {
        $sides = [1.0, 1.0, 1.0, 1.0];
        $half = (int) round($size / 2.0);
        foreach (self::AROUND_MM as $off) {
            $r = (int) round($size / 2.0 + max(2.0, $off / $cell));
            foreach ([[1, 0], [-1, 0], [0, 1], [0, -1]] as $k => [$dx, $dy]) {
                $inked = 0;
                for ($t = -$half; $t <= $half; ++$t) {
                    $line = $masks[(int) round($y + $dy * $r + $dx * $t)] ?? '';
                    $inked += '1' === ($line[max(0, (int) round($x + $dx * $r + $dy * $t))] ?? '0') ? 1 : 0;
                }
                $sides[$k] = min($sides[$k], $inked / (2 * $half + 1));
            }
        }

        return array_sum($sides) / 4.0 <= self::MOST_INKED[0] && max($sides) <= self::MOST_INKED[1];
    }

    /** @param list<WallLine> $walls */
    private static function isOfWall(Point $at, float $side, array $walls, float $cell): bool
    {
        foreach ($walls as $wall) {
            $isWider = $side >= $wall->thickness + max(self::WIDER[0], self::WIDER[1] * $cell);
            if (Filling::Solid === $wall->look->filling && !$isWider && $wall->distance($at) < ($wall->thickness + $side) / 2.0) {
                return true;
            }
        }

        return false;
    }
}
