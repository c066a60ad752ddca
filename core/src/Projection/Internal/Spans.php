<?php

declare(strict_types=1);

namespace Plinth\Core\Projection\Internal;

/**
 * Stretches of a line, each from a length to another, mm.
 *
 * @internal
 *
 * @phpstan-type Span array{float, float}
 */
final class Spans
{
    private const NOTHING_MM = 1e-6;
    /** Stretches that lie no further apart are one, mm. */
    private const GAP_MM = 1e-4;

    /**
     * @param list<float> $ends in order, where something begins and ends by turns
     *
     * @return list<Span>
     */
    public static function between(array $ends): array
    {
        $spans = [];
        for ($k = 1; $k < \count($ends); $k += 2) {
            $spans[] = [$ends[$k - 1], $ends[$k]];
        }

        return $spans;
    }

    /**
     * @param list<Span> $spans
     * @param list<Span> $less
     *
     * @return list<Span> what of stretches lies in no other; of those only what lies between two lengths counts
     */
    public static function without(array $spans, array $less, float $from = -\INF, float $to = \INF): array
    {
        foreach ($less as [$a, $b]) {
            [$a, $b] = [max($a, $from), min($b, $to)];
            if ($b - $a < self::NOTHING_MM) {
                continue;
            }
            $left = [];
            foreach ($spans as $span) {
                if ($b <= $span[0] || $a >= $span[1]) {
                    $left[] = $span;
                    continue;
                }
                if ($a > $span[0]) {
                    $left[] = [$span[0], $a];
                }
                if ($b < $span[1]) {
                    $left[] = [$b, $span[1]];
                }
            }
            $spans = $left;
            if ([] === $spans) {
                break;
            }
        }

        return $spans;
    }

    /**
     * @param list<Span> $spans
     *
     * @return list<Span> in order, none of which meet
     */
    public static function union(array $spans): array
    {
        if (\count($spans) < 2) {
            return $spans;
        }
        sort($spans);
        $union = [];
        [$from, $to] = $spans[0];
        foreach ($spans as $span) {
            if ($span[0] > $to + self::GAP_MM) {
                $union[] = [$from, $to];
                [$from, $to] = $span;
            } else {
                $to = max($to, $span[1]);
            }
        }

        return [...$union, [$from, $to]];
    }

    /**
     * @param list<Span> $spans
     * @param list<Span> $others
     *
     * @return list<Span>
     */
    public static function common(array $spans, array $others): array
    {
        $common = [];
        foreach ($spans as [$a, $b]) {
            foreach ($others as [$c, $d]) {
                [$from, $to] = [max($a, $c), min($b, $d)];
                if ($to - $from > self::NOTHING_MM) {
                    $common[] = [$from, $to];
                }
            }
        }

        return $common;
    }
}
