<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

use Plinth\Core\Ink\Page\Blob;
use Plinth\Core\Numerics\Cholesky;
use Plinth\Core\Numerics\Median;

/**
 * A piece of ink of equal bands side by side, by turns full and empty.
 *
 * u runs along it and v to its right (down, where it is level), px of the ink; the origin is the ink's.
 *
 * @internal
 */
final readonly class BandedBar
{
    /** so many bands at least, and at most */
    private const BANDS = [3, 40];
    /** so many times as long as high, at least; and px that it is long and high at least; higher than this it is no bar */
    private const LONG = 10.0;
    private const LEAST_PX = [50.0, 4.0];
    private const HIGHEST_PX = 80.0;
    /** by how much it may be turned from the grid, dv/du */
    private const TURNED = 0.08;
    /** part of a full band's ink that an empty one's two edges have at most */
    private const EDGES = 0.62;
    /** part of a band's width by which an edge lies off where equal bands would have it, and px */
    private const EVEN = [0.06, 1.5];
    /** parts of all columns from which full and empty ones are told */
    private const QUANTILES = [0.15, 0.85];

    /**
     * @param float $direction that it runs in, radians with y down
     * @param float $from where it begins along it, in the middle of its edge, and $to where it ends
     * @param float $head v of its upper edge, and $foot of its lower one
     */
    private function __construct(
        public float $direction,
        public float $from,
        public float $to,
        public float $head,
        public float $foot,
        public int $bands,
    ) {
    }

    /** @param float $direction radians with y down, within some degrees of that of the bar */
    public static function of(Blob $blob, float $direction): ?self
    {
        [$left, $right, $top, $bottom] = $blob->extent(cos($direction), sin($direction));
        $long = $right - $left + 1.0;
        if ($long < self::LEAST_PX[0] || $bottom - $top > self::HIGHEST_PX + self::TURNED * $long) {
            return null;
        }
        // First along the grid, then along the bar itself, which a photograph has turned.
        $direction += atan(self::slope(self::columns($blob, $direction)));
        $columns = self::columns($blob, $direction);
        [$first, $last] = [array_key_first($columns), array_key_last($columns)];
        $long = $last - $first + 1.0;
        $ink = array_map(static fn (int $u): int => $columns[$u][0] ?? 0, range($first, $last));
        $sorted = $ink;
        sort($sorted);
        [$empty, $full] = array_map(static fn (float $q): int => $sorted[(int) ($q * (\count($sorted) - 1))], self::QUANTILES);
        if ($full < self::LEAST_PX[1] || $long < self::LONG * $full || $empty > self::EDGES * $full) {
            return null;
        }
        $fit = self::fitted(self::edges($ink, $empty, $full));
        if (null === $fit || $fit[2] < self::BANDS[0] || $fit[2] > self::BANDS[1]) {
            return null;
        }
        [$from, $band, $bands] = $fit;
        // Letters that touch it, and specks, are a small part of its columns.
        $middle = Median::of(array_map(static fn (array $of): float => $of[1] / $of[0], array_values($columns)));

        return new self(
            $direction,
            $first + $from,
            $first + $from + $bands * $band,
            $middle - ($full - 1.0) / 2.0,
            $middle + ($full - 1.0) / 2.0,
            $bands,
        );
    }

    /** u of the end of so many bands. */
    public function tick(int $k): float
    {
        return $this->from + ($this->to - $this->from) * $k / $this->bands;
    }

    public function height(): float
    {
        return $this->foot - $this->head + 1.0;
    }

    /** @return array{float, float} x and y */
    public function at(float $u, float $v): array
    {
        [$c, $s] = [cos($this->direction), sin($this->direction)];

        return [$u * $c - $v * $s, $u * $s + $v * $c];
    }

    /**
     * Where full bands begin and end, by turns, and whether an empty one lies before the first and after the last: it is closed by a line.
     *
     * @param list<int> $ink by column
     * @param int $empty ink of an empty band's two edges, and $full of a full band, px
     *
     * @return array{list<float>, bool, bool} columns, between their middles
     */
    private static function edges(array $ink, int $empty, int $full): array
    {
        $edges = self::crossings($ink, ($empty + $full) / 2.0);
        $closed = [false, false];
        foreach ([0, 1] as $end) {
            $at = 0 === $end ? 0 : \count($edges) - 2;
            if (\count($edges) > 3 && $edges[$at + 1] - $edges[$at] <= $empty + 1.0) {
                $closed[$end] = true;
                array_splice($edges, $at, 2);
            }
        }
        // The outermost ones go from paper to full ink, not from an empty band.
        $outer = self::crossings($ink, $full / 2.0);
        if (!$closed[0] && [] !== $edges) {
            $edges[0] = $outer[0];
        }
        if (!$closed[1] && [] !== $edges) {
            $edges[\count($edges) - 1] = $outer[\count($outer) - 1];
        }

        return [$edges, ...$closed];
    }

    /**
     * Where the ink rises above a level and falls below it, by turns.
     *
     * @param list<int> $ink by column
     *
     * @return list<float> columns, between their middles
     */
    private static function crossings(array $ink, float $level): array
    {
        $crossings = [];
        $before = 0;
        foreach ([...$ink, 0] as $i => $here) {
            if (($here > $level) !== ($before > $level)) {
                $crossings[] = $i - 1.0 + ($level - $before) / ($here - $before);
            }
            $before = $here;
        }

        return $crossings;
    }

    /**
     * Equal bands by least squares. Every full one is wider than an empty one by the stroke of its edge and by blur, all by as much.
     *
     * @param array{list<float>, bool, bool} $found
     *
     * @return array{float, float, int}|null where the first begins, how wide each is, and how many; null where they are not equal
     */
    private static function fitted(array $found): ?array
    {
        [$edges, $isEmptyFirst, $isEmptyLast] = $found;
        $n = \count($edges);
        if ($n < self::BANDS[0]) {
            return null;
        }
        // position = from + band · k ∓ wider: full bands begin early and end late.
        $normal = array_fill(0, 3, [0.0, 0.0, 0.0]);
        $right = [0.0, 0.0, 0.0];
        $rows = [];
        foreach ($edges as $i => $edge) {
            $rows[] = $row = [1.0, $i + ($isEmptyFirst ? 1.0 : 0.0), 0 === $i % 2 ? -1.0 : 1.0];
            foreach ($row as $a => $x) {
                $right[$a] += $x * $edge;
                foreach ($row as $b => $y) {
                    $normal[$a][$b] += $x * $y;
                }
            }
        }
        $solved = Cholesky::of($normal)?->solve($right);
        if (null === $solved) {
            return null;
        }
        [$from, $band, $wider] = $solved;
        foreach ($rows as $i => [, $k, $sign]) {
            if (abs($edges[$i] - $from - $band * $k - $sign * $wider) > max(self::EVEN[0] * $band, self::EVEN[1])) {
                return null;
            }
        }

        return [$from, $band, $n - 1 + ($isEmptyFirst ? 1 : 0) + ($isEmptyLast ? 1 : 0)];
    }

    /** @return non-empty-array<int, array{int, float}> ink and the sum of its v by u, ascending */
    private static function columns(Blob $blob, float $direction): array
    {
        [$c, $s] = [cos($direction), sin($direction)];
        $columns = [];
        foreach ($blob->runs as [$y, $from, $to]) {
            for ($x = $from; $x < $to; ++$x) {
                $u = (int) round($x * $c + $y * $s);
                $columns[$u] = [($columns[$u][0] ?? 0) + 1, ($columns[$u][1] ?? 0.0) + $y * $c - $x * $s];
            }
        }
        ksort($columns);

        return [] === $columns ? throw new \LogicException('A piece of ink has ink.') : $columns;
    }

    /** @param array<int, array{int, float}> $columns ink and the sum of its v by u */
    private static function slope(array $columns): float
    {
        [$n, $u0, $v0] = [\count($columns), 0.0, 0.0];
        foreach ($columns as $u => [$ink, $sum]) {
            $u0 += $u / $n;
            $v0 += $sum / $ink / $n;
        }
        [$uu, $uv] = [1e-9, 0.0];
        foreach ($columns as $u => [$ink, $sum]) {
            $uu += ($u - $u0) ** 2;
            $uv += ($u - $u0) * ($sum / $ink - $v0);
        }

        return $uv / $uu;
    }
}
