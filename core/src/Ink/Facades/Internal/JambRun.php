<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Facades\Internal;

/**
 * An edge that runs upright for a while: something like a jamb. Counted in cells.
 *
 * @internal
 */
final readonly class JambRun
{
    /**
     * @param float $middle column, mean of all its lines
     * @param int $sign 1 where it grows darker to the right, −1 where lighter
     * @param int $from its lowest line
     * @param int $count lines in which it shows
     */
    private function __construct(public float $middle, public int $sign, public int $from, public int $to, public int $count)
    {
    }

    /**
     * All there are, each peak followed from line to line.
     *
     * @param list<array<int, int>> $peaks by line from below: response by column
     * @param int $gap lines over which it may be missing
     * @param int $least lines that it runs on
     *
     * @return list<self> those that show in the most lines first
     */
    public static function in(array $peaks, int $gap, int $least): array
    {
        $all = [];
        /** @var array<int, non-empty-list<array{int, int}>> $open lines and columns so far, by the last column and the sign */
        $open = [];
        foreach ($peaks as $j => $line) {
            $next = [];
            foreach ($line as $i => $v) {
                $isDarker = $v < 0 ? 0 : 1;
                $before = [];
                foreach ([0, -1, 1] as $off) {
                    $key = 2 * ($i + $off) + $isDarker;
                    if (isset($open[$key])) {
                        $before = $open[$key];
                        unset($open[$key]);
                        break;
                    }
                }
                $next[2 * $i + $isDarker] = [...$before, [$j, $i]];
            }
            foreach ($open as $key => $places) {
                if ($j - $places[\count($places) - 1][0] > $gap || isset($next[$key])) {
                    $all[] = self::through($places, $key % 2);
                } else {
                    $next[$key] = $places;
                }
            }
            $open = $next;
        }
        foreach ($open as $key => $places) {
            $all[] = self::through($places, $key % 2);
        }
        $all = array_values(array_filter($all, static fn (self $run): bool => $run->to - $run->from >= $least));
        usort($all, static fn (self $a, self $b): int => $b->count <=> $a->count);

        return $all;
    }

    /** @param non-empty-list<array{int, int}> $places lines and columns */
    private static function through(array $places, int $isDarker): self
    {
        $count = \count($places);

        return new self(
            array_sum(array_column($places, 1)) / $count,
            1 === $isDarker ? 1 : -1,
            $places[0][0],
            $places[$count - 1][0],
            $count,
        );
    }
}
