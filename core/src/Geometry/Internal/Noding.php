<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry\Internal;

use Brick\Math\BigInteger;

/**
 * Lines on the grid, cut where they meet.
 *
 * Crossings are put on the grid as well, and every line is led through all ends and crossings that it passes within half a step of:
 * what comes out meets in its ends alone (snap rounding; Hobby, Practical segment intersection with finite precision output, 1999,
 * from memory).
 *
 * A line is told by x and y of its first end, of its second, which is the greater place, and its weight: how often rings run that way,
 * less how often they run back.
 *
 * @internal
 *
 * @phpstan-type Line array{int, int, int, int, int}
 */
final class Noding
{
    /** So near to a half, floating point does not tell which side of it a place lies on. */
    private const DOUBTFUL = 1e-5;
    /** Fewer lines than this are not worth a strip of their own. */
    private const PER_STRIP = 60;

    /** @var array<int, array<int, int>> weights by first and second end */
    private array $weights = [];

    public function add(int $from, int $to, int $weight): void
    {
        if ($from < $to) {
            $this->weights[$from][$to] = ($this->weights[$from][$to] ?? 0) + $weight;
        } elseif ($from > $to) {
            $this->weights[$to][$from] = ($this->weights[$to][$from] ?? 0) - $weight;
        }
    }

    /** @return array<int, array<int, int>> weights by first and second end of lines that meet in their ends alone */
    public function noded(): array
    {
        $lines = $this->lines();
        $places = self::crossings($lines);
        foreach ($lines as [$ax, $ay, $bx, $by]) {
            $places[($ax << Grid::BITS) + $ay] = true;
            $places[($bx << Grid::BITS) + $by] = true;
        }
        $led = new self();
        $led->leadThrough($lines, array_keys($places));

        return $led->weights;
    }

    /** @return list<Line> from left to right: only lines that are still open may meet the next one */
    private function lines(): array
    {
        ksort($this->weights);
        $lines = [];
        foreach ($this->weights as $from => $ends) {
            foreach ($ends as $to => $weight) {
                if (0 !== $weight) {
                    $lines[] = [$from >> Grid::BITS, $from & Grid::LOW, $to >> Grid::BITS, $to & Grid::LOW, $weight];
                }
            }
        }

        return $lines;
    }

    /**
     * Places nearest to where two lines cross, or where an end of one lies within another.
     *
     * @param list<Line> $lines from left to right
     *
     * @return array<int, true>
     */
    private static function crossings(array $lines): array
    {
        $found = [];
        // Lines that are still open, by level strips: about as many strips as lines stand above each other.
        $height = max(1, (int) ceil((1 << Grid::BITS - 1) / sqrt(max(1, \count($lines) / self::PER_STRIP))));
        $strips = [];
        foreach ($lines as $line) {
            [$ax, $ay, , $by] = $line;
            [$low, $high] = $ay < $by ? [$ay, $by] : [$by, $ay];
            $line[] = $low;
            $line[] = $high;
            for ($strip = intdiv($low, $height), $last = intdiv($high, $height); $strip <= $last; ++$strip) {
                foreach ($strips[$strip] ?? [] as $k => $other) {
                    if ($other[2] < $ax) {
                        unset($strips[$strip][$k]);
                    } elseif ($other[5] <= $high && $other[6] >= $low) {
                        self::cross($line, $other, $found);
                    }
                }
                $strips[$strip][] = $line;
            }
        }

        return $found;
    }

    /**
     * @param array{int, int, int, int, int, int, int} $line
     * @param array{int, int, int, int, int, int, int} $other
     * @param array<int, true> $found
     */
    private static function cross(array $line, array $other, array &$found): void
    {
        [$ax, $ay, $bx, $by] = $line;
        [$cx, $cy, $dx, $dy] = $other;
        // Twice the areas that the ends of one make with the other: exact.
        $c = ($bx - $ax) * ($cy - $ay) - ($by - $ay) * ($cx - $ax);
        $d = ($bx - $ax) * ($dy - $ay) - ($by - $ay) * ($dx - $ax);
        if (($c > 0 && $d > 0) || ($c < 0 && $d < 0)) {
            return;
        }
        $a = ($dx - $cx) * ($ay - $cy) - ($dy - $cy) * ($ax - $cx);
        $b = ($dx - $cx) * ($by - $cy) - ($dy - $cy) * ($bx - $cx);
        if (($a > 0 && $b > 0) || ($a < 0 && $b < 0)) {
            return;
        }
        if (0 !== $a && 0 !== $b && 0 !== $c && 0 !== $d) {
            $found[(($ax + self::part($a, $a - $b, $bx - $ax)) << Grid::BITS) + $ay + self::part($a, $a - $b, $by - $ay)] = true;

            return;
        }
        foreach ([
            [$c, $cx, $cy, $ax, $ay, $bx, $by],
            [$d, $dx, $dy, $ax, $ay, $bx, $by],
            [$a, $ax, $ay, $cx, $cy, $dx, $dy],
            [$b, $bx, $by, $cx, $cy, $dx, $dy],
        ] as [$off, $x, $y, $x1, $y1, $x2, $y2]) {
            if (0 === $off && $x >= $x1 && $x <= $x2 && $y >= min($y1, $y2) && $y <= max($y1, $y2)) {
                $found[($x << Grid::BITS) + $y] = true;
            }
        }
    }

    /** The nearest whole number to numerator / denominator · length; a half goes up. */
    private static function part(int $numerator, int $denominator, int $length): int
    {
        $about = $numerator / $denominator * $length + 0.5;
        if (abs($about - round($about)) > self::DOUBTFUL) {
            return (int) floor($about);
        }
        [$numerator, $denominator] = $denominator < 0 ? [-$numerator, -$denominator] : [$numerator, $denominator];
        $twice = BigInteger::of($numerator)->multipliedBy(2 * $length)->plus($denominator);
        [$whole, $rest] = $twice->quotientAndRemainder(BigInteger::of($denominator)->multipliedBy(2));

        return $whole->toInt() - ($rest->isNegative() ? 1 : 0);
    }

    /**
     * @param list<Line> $lines
     * @param list<int> $places
     */
    private function leadThrough(array $lines, array $places): void
    {
        [$left, $width, $columns] = self::columns($places);
        foreach ($lines as [$ax, $ay, $bx, $by, $weight]) {
            [$dx, $dy] = [$bx - $ax, $by - $ay];
            $reach = $dx + abs($dy);
            [$bottom, $top] = $ay < $by ? [$ay, $by] : [$by, $ay];
            $through = [];
            $last = intdiv($bx - $left, $width);
            for ($c = intdiv($ax - $left, $width); $c <= $last; ++$c) {
                // Where the line runs in this column, and a little beyond.
                [$x1, $x2] = [max($ax, $left + $c * $width), min($bx, $left + ($c + 1) * $width)];
                [$y1, $y2] = 0 === $dx ? [$ay, $by] : [$ay + $dy / $dx * ($x1 - $ax), $ay + $dy / $dx * ($x2 - $ax)];
                [$low, $high] = $y1 < $y2 ? [(int) floor($y1) - 2, (int) ceil($y2) + 2] : [(int) floor($y2) - 2, (int) ceil($y1) + 2];
                $column = $columns[$c] ?? [];
                for ($i = self::firstFrom($column, $low); isset($column[$i]) && $column[$i][0] <= $high; ++$i) {
                    [$y, $x] = $column[$i];
                    if ($x < $ax || $x > $bx || $y < $bottom || $y > $top) {
                        continue;
                    }
                    $off = $dx * ($y - $ay) - $dy * ($x - $ax);
                    $beyond = 2 * abs($off) - $reach;
                    // Of its square's sides and corners a place has the left and the lower ones, and where those meet.
                    if ($beyond < 0 || (0 === $beyond && $dy < 0 && $off > 0)) {
                        $through[($x << Grid::BITS) + $y] = $dx * ($x - $ax) + $dy * ($y - $ay);
                    }
                }
            }
            if (\count($through) > 2) {
                asort($through);
            } else {
                ksort($through);
            }
            $from = null;
            foreach ($through as $to => $_) {
                if (null !== $from) {
                    $this->add($from, $to, $weight);
                }
                $from = $to;
            }
        }
    }

    /**
     * Places by upright columns, about as many as there are places in each.
     *
     * @param list<int> $places
     *
     * @return array{int, positive-int, array<int, list<array{int, int}>>} left end, width, and y and x of the places in each column from
     *                                                                     below
     */
    private static function columns(array $places): array
    {
        if ([] === $places) {
            return [0, 1, []];
        }
        $left = min($places) >> Grid::BITS;
        $width = max(1, (int) ceil(((max($places) >> Grid::BITS) - $left) / sqrt(\count($places))));
        $columns = [];
        foreach ($places as $place) {
            $x = $place >> Grid::BITS;
            $columns[intdiv($x - $left, $width)][] = [$place & Grid::LOW, $x];
        }
        foreach ($columns as $c => $column) {
            sort($column);
            $columns[$c] = $column;
        }

        return [$left, $width, $columns];
    }

    /** @param list<array{int, int}> $sorted by what comes first in each */
    private static function firstFrom(array $sorted, int $least): int
    {
        [$low, $high] = [0, \count($sorted)];
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if ($sorted[$middle][0] < $least) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }

        return $low;
    }
}
