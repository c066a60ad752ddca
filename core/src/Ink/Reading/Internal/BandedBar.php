<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

use Plinth\Core\Ink\Page\Blob;
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
    /** part of the usual one's width by which a band is wider or narrower, and px */
    private const EVEN = [0.12, 2.0];
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
        $ink = array_column($columns, 0);
        $sorted = $ink;
        sort($sorted);
        [$empty, $full] = array_map(static fn (float $q): int => $sorted[(int) ($q * (\count($sorted) - 1))], self::QUANTILES);
        if ($full < self::LEAST_PX[1] || $long < self::LONG * $full || $empty > self::EDGES * $full) {
            return null;
        }
        $stroke = max(1.0, $empty / 2.0);
        $bands = self::bands($ink, ($empty + $full) / 2.0, $stroke);
        if (\count($bands) < self::BANDS[0] || \count($bands) > self::BANDS[1]) {
            return null;
        }
        $usual = array_sum($bands) / \count($bands);
        foreach ($bands as $band) {
            if (abs($band - $usual) > max(self::EVEN[0] * $usual, self::EVEN[1])) {
                return null;
            }
        }

        // Letters that touch it, and specks, are a small part of its columns.
        $middle = Median::of(array_map(static fn (array $of): float => $of[1] / $of[0], array_values($columns)));

        return new self(
            $direction,
            $first + ($stroke - 1.0) / 2.0,
            $last - ($stroke - 1.0) / 2.0,
            $middle - ($full - 1.0) / 2.0,
            $middle + ($full - 1.0) / 2.0,
            \count($bands),
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
     * Widths of the bands, by turns full and empty. An empty one at either end is closed by a line, which is no band.
     *
     * @param list<int> $ink by column
     *
     * @return list<int>
     */
    private static function bands(array $ink, float $level, float $stroke): array
    {
        $bands = [];
        $was = null;
        foreach ($ink as $of) {
            $is = $of > $level;
            if ($is === $was) {
                ++$bands[\count($bands) - 1];
            } else {
                $bands[] = 1;
                $was = $is;
            }
        }
        foreach ([0, -1] as $end) {
            $at = 0 === $end ? 0 : \count($bands) - 1;
            if (\count($bands) > 1 && $bands[$at] <= 2.0 * $stroke + 1.0) {
                // The line belongs to the band that it closes.
                $next = 0 === $end ? 1 : $at - 1;
                $bands[$next] += $bands[$at];
                unset($bands[$at]);
                $bands = array_values($bands);
            }
        }

        return $bands;
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
