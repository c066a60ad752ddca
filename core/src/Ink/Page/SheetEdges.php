<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

use Plinth\Core\Numerics\Median;

/**
 * Where the sheet ends on its picture: up to four straight steps from the paper's level to that of what lies beneath or beyond it.
 *
 * The steps are looked for on a small picture whose ink is closed, row by row from each side; the line that most rows agree on is the
 * edge (random sampling, Fischler and Bolles 1981, from memory). It assumes a sheet that fills most of the picture and lies nearly
 * straight in it.
 */
final readonly class SheetEdges
{
    /** px of the longer side that an edge shows at */
    private const SIDE = 320;
    /** px on the small picture that ink is closed over: wider than any line there */
    private const CLOSING = 4;
    /** part of a side's depth in which its edge may lie */
    private const DEPTH = 0.3;
    /** grey levels of a step at least, and as a multiple of the usual difference */
    private const STEP = [8, 5];
    /** px that rows of one edge lie off their line by at most */
    private const OFF = 1.5;
    /** An edge runs at most so steep to its side: 15°. */
    private const STEEPEST = 0.27;
    /** part of all rows that have to agree */
    private const AGREE = 0.3;
    /** lines that are tried */
    private const TRIES = 250;
    /** px of the small picture from an edge: what lies nearer is the blurred step, what lies further may be a drawing */
    private const WITHIN = [3, 33];
    /** px of the small picture that the blurred step reaches into the sheet */
    private const INWARD = 1.5;
    /** part of the picture's middle row that a sheet takes at least */
    private const LEAST_PART = 0.35;
    /** px that a row of the sheet is long at least */
    private const LEAST_ROW = 40;
    /** px beside an edge whose level stands for the paper there */
    private const BESIDE = 24;
    /** part of the pixels that are darker than paper: most of a sheet is blank */
    private const PAPER = 0.75;

    /** @param array<string, array{float, float}> $sides left and right as x = a + b y, top and bottom as y = a + b x, px of the picture */
    private function __construct(public array $sides)
    {
    }

    /** @param GreyRaster $raster dark ink on light paper */
    public static function of(GreyRaster $raster): self
    {
        $factor = max(1, (int) ceil(max($raster->width, $raster->height) / self::SIDE));
        $small = $raster->shrunk($factor);
        if (min($small->width, $small->height) < self::SIDE / 5) {
            return new self([]);
        }
        $closed = self::closed($small);
        $sides = [];
        foreach (['left', 'right', 'top', 'bottom'] as $side) {
            [$level, $far] = [\in_array($side, ['top', 'bottom'], true), \in_array($side, ['right', 'bottom'], true)];
            $line = self::edge($closed, $small->width, $small->height, $level, $far);
            if (null !== $line) {
                [$a, $b] = $line;
                $depth = $level ? $small->height : $small->width;
                $a += self::INWARD;
                $sides[$side] = $far ? [($depth - 1 - $a) * $factor, -$b] : [($a + 1.0) * $factor, $b];
            }
        }

        // Edges that leave nothing between them are none.
        $edges = new self($sides);
        [$from, $to] = $edges->span(intdiv($raster->height, 2), $raster->width);

        return $to - $from >= self::LEAST_PART * $raster->width ? $edges : new self([]);
    }

    /**
     * The edge on one side of a picture.
     *
     * @param list<int> $grey
     * @param bool $level whether the side runs level: top or bottom
     * @param bool $far whether it is the right or the bottom one
     *
     * @return array{float, float}|null depth at the beginning of the side, and slope
     */
    private static function edge(array $grey, int $width, int $height, bool $level, bool $far): ?array
    {
        [$rows, $depth] = $level ? [$width, $height] : [$height, $width];
        $limit = (int) (self::DEPTH * $depth);
        $steps = [];
        $all = [];
        for ($row = 2; $row < $rows - 2; $row += 2) {
            for ($i = 0; $i <= $limit; ++$i) {
                [$out, $in] = [max(0, $i - 2), $i + 2];
                [$out, $in] = $far ? [$depth - 1 - $out, $depth - 1 - $in] : [$out, $in];
                [$across, $along] = $level ? [$width, 1] : [1, $width];
                $steps[$row][$i] = $grey[$in * $across + $row * $along] - $grey[$out * $across + $row * $along];
                $all[] = abs($steps[$row][$i]);
            }
        }
        if ([] === $all) {
            return null;
        }
        sort($all);
        $least = max(self::STEP[0], self::STEP[1] * $all[intdiv(\count($all), 2)]);
        $best = null;
        foreach ([1, -1] as $sign) {
            $points = [];
            foreach ($steps as $row => $step) {
                for ($i = 1; $i < $limit; ++$i) {
                    $value = $sign * $step[$i];
                    if ($value >= $least && $value >= $sign * $step[$i - 1] && $value > $sign * $step[$i + 1]) {
                        $points[] = [$row, $i];
                    }
                }
            }
            $line = self::line($points, \count($steps));
            $isEdge = null !== $line && $sign * self::across($grey, $width, $rows, $depth, $level, $far, $line) >= $least;
            $best = $isEdge && (null === $best || $line[2] > $best[2]) ? $line : $best;
        }

        return null === $best ? null : [$best[0], $best[1]];
    }

    /**
     * How much lighter it is within a line than all the way beyond it: a wall is dark, but beyond it there is paper again.
     *
     * @param list<int> $grey
     * @param array{float, float, int} $line
     *
     * @return float grey levels, the median of the rows
     */
    private static function across(array $grey, int $width, int $rows, int $depth, bool $level, bool $far, array $line): float
    {
        $steps = [];
        for ($row = 2; $row < $rows - 2; $row += 2) {
            $at = (int) round($line[0] + $line[1] * $row);
            $values = [];
            for ($i = 0; $i < min($depth, $at + self::WITHIN[1]); ++$i) {
                $d = $far ? $depth - 1 - $i : $i;
                $values[$i] = (float) ($level ? $grey[$d * $width + $row] : $grey[$row * $width + $d]);
            }
            $beyond = \array_slice($values, 0, max(1, $at - self::WITHIN[0]));
            $within = \array_slice($values, max(0, $at + self::WITHIN[0]));
            if ([] !== $within) {
                $steps[] = Median::of($within) - Median::of($beyond);
            }
        }

        return Median::of($steps);
    }

    /**
     * @param list<array{int, int}> $points row and depth
     *
     * @return array{float, float, int}|null depth, slope, and how many rows agree
     */
    private static function line(array $points, int $rows): ?array
    {
        $n = \count($points);
        if ($n < self::AGREE * $rows) {
            return null;
        }
        $best = [0.0, 0.0, 0];
        // The same picture gives the same edge: pairs are drawn by a sequence of its own (Lehmer 1951, from memory).
        $drawn = 1;
        for ($try = 0; $try < self::TRIES; ++$try) {
            $drawn = $drawn * 48_271 % 2_147_483_647;
            [$row, $i] = $points[$drawn % $n];
            $drawn = $drawn * 48_271 % 2_147_483_647;
            [$otherRow, $otherI] = $points[$drawn % $n];
            $slope = abs($otherRow - $row) < 0.2 * $rows ? \INF : ($otherI - $i) / ($otherRow - $row);
            if (abs($slope) > self::STEEPEST) {
                continue;
            }
            $start = $i - $slope * $row;
            $on = [];
            foreach ($points as [$r, $d]) {
                if (abs($d - $start - $slope * $r) <= self::OFF) {
                    $on[$r] = true;
                }
            }
            if (\count($on) > $best[2]) {
                $best = [$start, $slope, \count($on)];
            }
        }

        return $best[2] >= self::AGREE * $rows ? $best : null;
    }

    /** The picture as if the paper went on beyond the sheet's edges. */
    public function filled(GreyRaster $raster): GreyRaster
    {
        if ([] === $this->sides) {
            return $raster;
        }
        $rows = [];
        for ($y = 0; $y < $raster->height; ++$y) {
            [$from, $to] = $this->span($y, $raster->width);
            if ($to - $from >= self::LEAST_ROW) {
                $row = $raster->row($y, $from, $to - $from);
                $before = self::paper(substr($row, 0, self::BESIDE), $from);
                $rows[$y] = $before.$row.self::paper(substr($row, -self::BESIDE), $raster->width - $to);
            }
        }
        if ([] === $rows) {
            return $raster;
        }
        $first = array_key_first($rows);
        $above = self::paper($rows[$first], $raster->width);
        $below = self::paper($rows[array_key_last($rows)], $raster->width);
        $bytes = '';
        for ($y = 0; $y < $raster->height; ++$y) {
            $bytes .= $rows[$y] ?? ($y < $first ? $above : $below);
        }

        return new GreyRaster($raster->width, $raster->height, $bytes);
    }

    /**
     * Values of the same picture with nothing beyond the sheet's edges.
     *
     * @param string $values a byte for each pixel, row by row
     */
    public function blanked(string $values, int $width): string
    {
        if ([] === $this->sides) {
            return $values;
        }
        $rows = '';
        for ($y = 0, $height = intdiv(\strlen($values), max(1, $width)); $y < $height; ++$y) {
            [$from, $to] = $this->span($y, $width);
            $rows .= str_repeat("\0", $from).substr($values, $y * $width + $from, $to - $from).str_repeat("\0", $width - $to);
        }

        return $rows;
    }

    /** @return array{int, int} first column of a row that lies on the sheet, and the one after its last */
    private function span(int $y, int $width): array
    {
        [$from, $to] = [0.0, (float) $width];
        if (isset($this->sides['left'])) {
            $from = max($from, ceil($this->sides['left'][0] + $this->sides['left'][1] * $y));
        }
        if (isset($this->sides['right'])) {
            $to = min($to, floor($this->sides['right'][0] + $this->sides['right'][1] * $y));
        }
        foreach (['top' => 1.0, 'bottom' => -1.0] as $side => $inward) {
            if (!isset($this->sides[$side])) {
                continue;
            }
            [$a, $b] = $this->sides[$side];
            if (abs($b) < 1e-9) {
                $to = $inward * ($y - $a) < 0.0 ? $from : $to;
            } elseif ($inward * $b > 0.0) {
                $to = min($to, floor(($y - $a) / $b));
            } else {
                $from = max($from, ceil(($y - $a) / $b));
            }
        }

        $from = max(0, min($width, (int) $from));

        return [$from, max($from, min($width, (int) $to))];
    }

    /** So many pixels of the paper's level among some others. */
    private static function paper(string $pixels, int $count): string
    {
        $left = self::PAPER * \strlen($pixels);
        foreach ($count > 0 ? count_chars($pixels, 1) : [] as $value => $n) {
            $left -= $n;
            if ($left <= 0.0) {
                return str_repeat(\chr($value), $count);
            }
        }

        return '';
    }

    /**
     * Grey values with ink taken out. What lies off the sheet goes on beyond the picture, however little of it shows.
     *
     * @return list<int>
     */
    private static function closed(GreyRaster $small): array
    {
        $pad = 2 * self::CLOSING + 1;
        $rows = [];
        for ($y = -$pad; $y < $small->height + $pad; ++$y) {
            $row = $small->row(max(0, min($small->height - 1, $y)));
            $rows[] = str_repeat($row[0], $pad).$row.str_repeat($row[-1], $pad);
        }
        $width = $small->width + 2 * $pad;
        $grey = array_map(\ord(...), str_split(implode('', $rows)));
        $wide = self::ranked(self::ranked($grey, $width, true), $width, false);
        $closed = [];
        for ($y = 0; $y < $small->height; ++$y) {
            array_push($closed, ...\array_slice($wide, ($y + $pad) * $width + $pad, $small->width));
        }

        return $closed;
    }

    /**
     * Each pixel as the lightest, or the darkest, of the square round it.
     *
     * @param list<int> $grey
     *
     * @return list<int>
     */
    private static function ranked(array $grey, int $width, bool $lightest): array
    {
        $height = intdiv(\count($grey), $width);
        foreach ([[1, $width, $height, $width], [$width, $height, $width, 1]] as [$step, $n, $lines, $jump]) {
            $out = $grey;
            for ($line = 0; $line < $lines; ++$line) {
                for ($i = 0; $i < $n; ++$i) {
                    $first = $line * $jump + max(0, $i - self::CLOSING) * $step;
                    $last = $line * $jump + min($n - 1, $i + self::CLOSING) * $step;
                    $value = $grey[$first];
                    for ($at = $first + $step; $at <= $last; $at += $step) {
                        $value = $lightest === ($grey[$at] > $value) && $grey[$at] !== $value ? $grey[$at] : $value;
                    }
                    $out[$line * $jump + $i * $step] = $value;
                }
            }
            $grey = $out;
        }

        return array_values($grey);
    }
}
