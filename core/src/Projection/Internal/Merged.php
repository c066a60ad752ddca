<?php

declare(strict_types=1);

namespace Plinth\Core\Projection\Internal;

/**
 * Lines that lie on one another or go on in each other become one, body by body.
 *
 * @internal
 *
 * @phpstan-import-type Span from Spans
 */
final class Merged
{
    /** Ends that lie no further off a line lie on it, mm. */
    private const OFF_MM = 1e-3;
    private const TURNS = 1e4;

    /** @var list<array{float, float, float, array<int, list<Span>>}> direction, offset, and stretches by body */
    private array $lines = [];
    /** @var array<string, list<int>> */
    private array $buckets = [];

    /**
     * @param list<array{float, float, float, float, int}> $pieces
     *
     * @return list<array{float, float, float, float, int}> each place once: where two bodies have an edge it is the first one's
     */
    public static function of(array $pieces): array
    {
        $all = new self();
        foreach ($pieces as $piece) {
            $all->put(...$piece);
        }
        $merged = [];
        foreach ($all->lines as [$du, $dv, $off, $bodies]) {
            $taken = [];
            foreach ($bodies as $body => $spans) {
                $union = Spans::union($spans);
                foreach (Spans::without($union, $taken) as [$a, $b]) {
                    if ($b - $a > self::OFF_MM) {
                        $merged[] = [$du * $a - $dv * $off, $dv * $a + $du * $off, $du * $b - $dv * $off, $dv * $b + $du * $off, $body];
                    }
                }
                array_push($taken, ...$union);
            }
        }

        return $merged;
    }

    private function put(float $u1, float $v1, float $u2, float $v2, int $body): void
    {
        $length = hypot($u2 - $u1, $v2 - $v1);
        [$du, $dv] = [($u2 - $u1) / $length, ($v2 - $v1) / $length];
        if ($du < -1e-9 || (abs($du) <= 1e-9 && $dv < 0.0)) {
            [$du, $dv] = [-$du, -$dv];
        }
        $off = $du * $v1 - $dv * $u1;
        [$turn, $step] = [(int) floor(atan2($dv, $du) * self::TURNS), (int) floor($off)];
        $found = $this->found($turn, $step, [[$u1, $v1], [$u2, $v2]]);
        if (null === $found) {
            $found = \count($this->lines);
            $this->lines[] = [$du, $dv, $off, []];
            $this->buckets["$turn,$step"][] = $found;
        }
        [$du, $dv] = $this->lines[$found];
        $ends = [$du * $u1 + $dv * $v1, $du * $u2 + $dv * $v2];
        $this->lines[$found][3][$body][] = [min($ends), max($ends)];
    }

    /** @param list<array{float, float}> $ends */
    private function found(int $turn, int $step, array $ends): ?int
    {
        for ($k = 0; $k < 9; ++$k) {
            foreach ($this->buckets[($turn + $k % 3 - 1).','.($step + intdiv($k, 3) - 1)] ?? [] as $number) {
                [$du, $dv, $off] = $this->lines[$number];
                foreach ($ends as [$u, $v]) {
                    if (abs($du * $v - $dv * $u - $off) > self::OFF_MM) {
                        continue 2;
                    }
                }

                return $number;
            }
        }

        return null;
    }
}
