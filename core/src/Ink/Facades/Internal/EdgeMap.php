<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Facades\Internal;

/**
 * How strongly the values of a raster change along its lines, cell by cell: an edge of a surface as a step, signed, or a drawn line as
 * what is darker than both its sides.
 *
 * @internal
 */
final readonly class EdgeMap
{
    /** Every so many cells one is looked at to tell what is usual. */
    private const LOOK = 7;

    /** @param list<array<int, int>> $lines response at each cell of each line; of a step, at its beginning */
    private function __construct(public array $lines)
    {
    }

    /**
     * Mean of so many cells from each on, less that of as many before it.
     *
     * @param list<string> $rows one byte for each cell
     */
    public static function ofSteps(array $rows, int $reach): self
    {
        $lines = [];
        foreach ($rows as $row) {
            $sums = self::sums($row);
            $n = \strlen($row);
            $line = array_fill(0, $n, 0);
            for ($i = $reach; $i <= $n - $reach; ++$i) {
                $line[$i] = intdiv($sums[$i + $reach] - 2 * $sums[$i] + $sums[$i - $reach], $reach);
            }
            $lines[] = $line;
        }

        return new self($lines);
    }

    /**
     * Mean of a pen's width about each cell, less the darker one of both sides.
     *
     * @param list<string> $rows
     * @param int $half cells of the pen to either side of its middle one
     */
    public static function ofStrokes(array $rows, int $half, int $reach): self
    {
        $lines = [];
        $pen = 2 * $half + 1;
        foreach ($rows as $row) {
            $sums = self::sums($row);
            $n = \strlen($row);
            $line = array_fill(0, $n, 0);
            for ($i = $half + $reach; $i < $n - $half - $reach; ++$i) {
                [$a, $b] = [$i - $half, $i + $half + 1];
                $beside = max($sums[$a] - $sums[$a - $reach], $sums[$b + $reach] - $sums[$b]);
                $line[$i] = max(0, intdiv($sums[$b] - $sums[$a], $pen) - intdiv($beside, $reach));
            }
            $lines[] = $line;
        }

        return new self($lines);
    }

    /** @return list<int> of the cells before each, one more than there are */
    private static function sums(string $row): array
    {
        $sum = 0;
        $sums = [0];
        foreach (array_values((array) unpack('C*', $row)) as $value) {
            $sums[] = $sum += \is_int($value) ? $value : 0;
        }

        return $sums;
    }

    /** With nothing stronger than that: what shows in every other course of bricks is then weaker than what shows in all of them. */
    public function clipped(int $most): self
    {
        $lines = [];
        foreach ($this->lines as $line) {
            $clipped = [];
            foreach ($line as $v) {
                $clipped[] = $v > $most ? $most : ($v < -$most ? -$most : $v);
            }
            $lines[] = $clipped;
        }

        return new self($lines);
    }

    /** The mean of so many lines to either side: what runs across them stays. */
    public function along(int $lines): self
    {
        $n = \count($this->lines);
        $width = \count($this->lines[0] ?? []);
        $sums = array_fill(0, $width, 0);
        $smooth = [];
        $of = 2 * $lines + 1;
        for ($j = -$lines; $j < $n; ++$j) {
            $in = $this->lines[$j + $lines] ?? null;
            $out = $this->lines[$j - $lines - 1] ?? null;
            if (null !== $in) {
                foreach ($in as $i => $v) {
                    $sums[$i] += $v;
                }
            }
            if (null !== $out) {
                foreach ($out as $i => $v) {
                    $sums[$i] -= $v;
                }
            }
            if ($j >= 0) {
                $line = [];
                foreach ($sums as $v) {
                    $line[] = intdiv($v, $of);
                }
                $smooth[] = $line;
            }
        }

        return new self($smooth);
    }

    /** What is usual, whichever way it goes: the median. */
    public function usual(): int
    {
        $looked = [];
        $k = 0;
        foreach ($this->lines as $line) {
            for ($i = ++$k % self::LOOK; $i < \count($line); $i += self::LOOK) {
                $looked[] = abs($line[$i]);
            }
        }
        sort($looked);

        return $looked[intdiv(\count($looked), 2)] ?? 0;
    }

    /**
     * Where it is strongest among its neighbours along the line, and strong.
     *
     * @return list<array<int, int>> by line: response by cell
     */
    public function peaks(int $least, int $apart): array
    {
        $all = [];
        foreach ($this->lines as $line) {
            $peaks = [];
            $n = \count($line);
            for ($i = $apart; $i < $n - $apart; ++$i) {
                $v = abs($line[$i]);
                if ($v < $least) {
                    continue;
                }
                for ($k = 1; $k <= $apart; ++$k) {
                    if (abs($line[$i - $k]) > $v || abs($line[$i + $k]) >= $v) {
                        continue 2;
                    }
                }
                $peaks[$i] = $line[$i];
            }
            $all[] = $peaks;
        }

        return $all;
    }
}
