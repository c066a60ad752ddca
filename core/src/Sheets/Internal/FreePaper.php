<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Geometry\Polygon;

/**
 * What of a sheet is still free for words: they keep off other words, and off lines that they would cross.
 *
 * Looked up by cells, so that a place is tried in about the same time however much is drawn.
 *
 * @internal
 *
 * @phpstan-type Ring non-empty-list<array{float, float}>
 * @phpstan-type Box array{float, float, float, float}
 */
final class FreePaper
{
    private const CELL_MM = 8.0;
    /** more cells than there are one over the other */
    private const ROW = 1 << 24;

    /** @var list<Box> that words take */
    private array $boxes = [];
    /** @var list<array{float, float, float, float}> x, y and x, y of lines' ends */
    private array $lines = [];
    /** @var list<Ring> */
    private array $filled = [];
    /** @var array<int, list<int>> shapes by cell */
    private array $filledIn = [];
    /** @var array<int, list<int>> boxes by cell */
    private array $boxesIn = [];
    /** @var array<int, list<int>> lines by cell */
    private array $linesIn = [];

    /** @param Ring $room that words take from now on */
    public function take(array $room): void
    {
        $box = Polygon::bounds($room);
        foreach (self::cells($box) as $cell) {
            $this->boxesIn[$cell][] = \count($this->boxes);
        }
        $this->boxes[] = $box;
    }

    /** @param Ring $ring of what is filled: words do not stand on it either */
    public function fill(array $ring): void
    {
        foreach (self::cells(Polygon::bounds($ring)) as $cell) {
            $this->filledIn[$cell][] = \count($this->filled);
        }
        $this->filled[] = $ring;
    }

    /** @param list<array{float, float}> $points of a line that words may not cross */
    public function line(array $points, bool $isClosed = false): void
    {
        $count = \count($points);
        for ($i = 0; $i < $count - ($isClosed ? 0 : 1); ++$i) {
            [[$ax, $ay], [$bx, $by]] = [$points[$i], $points[($i + 1) % $count]];
            // A long slanting line is in few of the cells of its box: piece by piece.
            $pieces = max(1, (int) ceil(min(abs($bx - $ax), abs($by - $ay)) / (2.0 * self::CELL_MM)));
            for ($k = 0; $k < $pieces; ++$k) {
                [$s, $t] = [$k / $pieces, ($k + 1) / $pieces];
                $piece = [$ax + $s * ($bx - $ax), $ay + $s * ($by - $ay), $ax + $t * ($bx - $ax), $ay + $t * ($by - $ay)];
                [$x1, $y1, $x2, $y2] = $piece;
                foreach (self::cells([min($x1, $x2), min($y1, $y2), max($x1, $x2), max($y1, $y2)]) as $cell) {
                    $this->linesIn[$cell][] = \count($this->lines);
                }
                $this->lines[] = $piece;
            }
        }
    }

    /**
     * @param Ring $room
     * @param float $apart mm from other words at least, and from lines
     */
    public function isFree(array $room, float $apart): bool
    {
        [$x1, $y1, $x2, $y2] = Polygon::bounds($room);
        [$x1, $y1, $x2, $y2] = [$x1 - $apart, $y1 - $apart, $x2 + $apart, $y2 + $apart];
        [$left, $right] = [(int) floor($x1 / self::CELL_MM), (int) floor($x2 / self::CELL_MM)];
        [$top, $bottom] = [(int) floor($y1 / self::CELL_MM), (int) floor($y2 / self::CELL_MM)];
        for ($column = $left; $column <= $right; ++$column) {
            for ($row = $top; $row <= $bottom; ++$row) {
                $cell = $column * self::ROW + $row;
                foreach ($this->boxesIn[$cell] ?? [] as $i) {
                    [$u1, $v1, $u2, $v2] = $this->boxes[$i];
                    if ($x1 < $u2 && $x2 > $u1 && $y1 < $v2 && $y2 > $v1) {
                        return false;
                    }
                }
                foreach ($this->linesIn[$cell] ?? [] as $i) {
                    [$ax, $ay, $bx, $by] = $this->lines[$i];
                    if (
                        ($ax < $x1 && $bx < $x1) || ($ax > $x2 && $bx > $x2) || ($ay < $y1 && $by < $y1) || ($ay > $y2 && $by > $y2)
                    ) {
                        continue;
                    }
                    // All corners of the box lie on one side of a line that passes it by.
                    [$dx, $dy] = [$bx - $ax, $by - $ay];
                    $first = $dx * ($y1 - $ay) - $dy * ($x1 - $ax);
                    $isOneSide = ($dx * ($y1 - $ay) - $dy * ($x2 - $ax)) * $first > 0.0
                        && ($dx * ($y2 - $ay) - $dy * ($x2 - $ax)) * $first > 0.0
                        && ($dx * ($y2 - $ay) - $dy * ($x1 - $ax)) * $first > 0.0;
                    if (!$isOneSide) {
                        return false;
                    }
                }
            }
        }

        // What no line of a shape crosses lies in it with its middle, or not at all.
        [$x, $y] = [($x1 + $x2) / 2.0, ($y1 + $y2) / 2.0];
        foreach ($this->filledIn[(int) floor($x / self::CELL_MM) * self::ROW + (int) floor($y / self::CELL_MM)] ?? [] as $i) {
            if (Polygon::contains($this->filled[$i], $x, $y)) {
                return false;
            }
        }

        return true;
    }

    /**
     * Whether a level or upright line runs beside all words.
     *
     * @param array{float, float} $a
     * @param array{float, float} $b
     */
    public function isBesideWords(array $a, array $b, float $apart): bool
    {
        [$x1, $y1] = [min($a[0], $b[0]) - $apart, min($a[1], $b[1]) - $apart];
        [$x2, $y2] = [max($a[0], $b[0]) + $apart, max($a[1], $b[1]) + $apart];
        foreach (self::cells([$x1, $y1, $x2, $y2]) as $cell) {
            foreach ($this->boxesIn[$cell] ?? [] as $i) {
                [$u1, $v1, $u2, $v2] = $this->boxes[$i];
                if ($x1 < $u2 && $x2 > $u1 && $y1 < $v2 && $y2 > $v1) {
                    return false;
                }
            }
        }

        return true;
    }

    /**
     * Whether a line runs through words.
     *
     * @param array{float, float} $a
     * @param array{float, float} $b
     */
    public function runsThrough(array $a, array $b): bool
    {
        $own = new self();
        $own->line([$a, $b]);
        foreach (self::cells([min($a[0], $b[0]), min($a[1], $b[1]), max($a[0], $b[0]), max($a[1], $b[1])]) as $cell) {
            foreach ($this->boxesIn[$cell] ?? [] as $i) {
                [$x1, $y1, $x2, $y2] = $this->boxes[$i];
                if (!$own->isFree([[$x1, $y1], [$x2, $y2]], 0.0)) {
                    return true;
                }
            }
        }

        return false;
    }

    /**
     * What of an upright or a level line lies beside all words.
     *
     * @param array{float, float} $from
     * @param array{float, float} $to
     * @param float $apart mm that it keeps away from them
     *
     * @return list<array{array{float, float}, array{float, float}}>
     */
    public function beside(array $from, array $to, float $apart): array
    {
        $along = abs($to[0] - $from[0]) > abs($to[1] - $from[1]) ? 0 : 1;
        $across = 1 - $along;
        $stretches = [[min($from[$along], $to[$along]), max($from[$along], $to[$along])]];
        $seen = [];
        foreach (self::cells([
            min($from[0], $to[0]) - $apart, min($from[1], $to[1]) - $apart, max($from[0], $to[0]) + $apart, max($from[1], $to[1]) + $apart,
        ]) as $cell) {
            foreach ($this->boxesIn[$cell] ?? [] as $i) {
                $box = $this->boxes[$i];
                if (isset($seen[$i]) || $from[$across] <= $box[$across] - $apart || $from[$across] >= $box[$across + 2] + $apart) {
                    continue;
                }
                $seen[$i] = true;
                $left = [];
                foreach ($stretches as [$a, $b]) {
                    array_push($left, [$a, min($b, $box[$along] - $apart)], [max($a, $box[$along + 2] + $apart), $b]);
                }
                $stretches = array_values(array_filter($left, static fn (array $s): bool => $s[1] > $s[0]));
            }
        }
        $at = static fn (float $mm): array => 0 === $along ? [$mm, $from[1]] : [$from[0], $mm];

        $pieces = [];
        foreach ($stretches as [$a, $b]) {
            $pieces[] = [$at($a), $at($b)];
        }

        return $pieces;
    }

    /**
     * @param Box $box
     *
     * @return list<int>
     */
    private static function cells(array $box): array
    {
        [$left, $top] = [(int) floor($box[0] / self::CELL_MM), (int) floor($box[1] / self::CELL_MM)];
        [$right, $bottom] = [(int) floor($box[2] / self::CELL_MM), (int) floor($box[3] / self::CELL_MM)];
        $cells = [];
        for ($x = $left; $x <= $right; ++$x) {
            for ($y = $top; $y <= $bottom; ++$y) {
                $cells[] = $x * self::ROW + $y;
            }
        }

        return $cells;
    }
}
