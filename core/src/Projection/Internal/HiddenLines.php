<?php

declare(strict_types=1);

namespace Plinth\Core\Projection\Internal;

/**
 * What is seen of the edges of facets, each edge less the stretches over which something lies before it: by analysis, never from pixels
 * (Appel, 1967, and what followed).
 *
 * An edge is real only where just one side of it is covered by faces that go on in its own plane, without those that are seen from
 * inside: where two bodies lie flush against each other nothing is drawn. Where faces pass through each other, a line is added.
 *
 * @internal
 *
 * @phpstan-import-type Place from Facet
 * @phpstan-import-type Span from Spans
 *
 * @phpstan-type Edge array{Place, Place, int, int}
 * @phpstan-type Piece array{float, float, float, float, int}
 */
final class HiddenLines
{
    private const SHORTEST_MM = 1e-3;
    /** Depths that differ by less are one, mm. */
    private const DEPTH_MM = 1e-3;
    /** Sight lines that are so nearly alongside are, as a part of one. */
    private const ALONGSIDE = 1e-12;

    private readonly DepthGrid $grid;
    /** @var array<int, int> facet → the latest edge that has come across it */
    private array $seen;
    private int $edges = 0;
    /** @var list<Piece> */
    private array $visible = [];
    /** @var list<Piece> */
    private array $hidden = [];

    /** @param non-empty-list<Facet> $facets */
    private function __construct(private readonly array $facets, private readonly bool $withHidden)
    {
        $this->grid = DepthGrid::over($facets, $withHidden);
        $this->seen = array_fill(0, \count($facets), -1);
    }

    /**
     * @param list<Facet> $facets
     * @param bool $withHidden whether what is hidden is wanted as well
     *
     * @return array{list<Piece>, list<Piece>} visible and hidden lines: u and v
     *                                         of both ends, number of a body
     */
    public static function of(array $facets, bool $withHidden): array
    {
        if ([] === $facets) {
            return [[], []];
        }
        $lines = new self($facets, $withHidden);
        // Nearest first: where edges lie behind each other it is theirs.
        $order = array_keys($facets);
        usort($order, static fn (int $a, int $b): int => $facets[$a]->w0 <=> $facets[$b]->w0);
        foreach ($order as $number) {
            $facet = $facets[$number];
            // What is turned away is hidden, wherever it is no edge of something that is seen.
            foreach ($withHidden || ($facet->isFront && isset($lines->grid->open[$number])) ? $facet->rings : [] as $r => $ring) {
                $n = \count($ring);
                foreach ($ring as $i => $p) {
                    if ($facet->drawn[$r][$i]) {
                        $lines->look([$p, $ring[$i + 1 < $n ? $i + 1 : 0], $facet->plane, $facet->body], $facet->isFront);
                    }
                }
            }
        }
        foreach (Passing::edges($facets, $lines->grid) as $edge) {
            $lines->look($edge);
        }

        return [$lines->visible, $lines->hidden];
    }

    /** @param Edge $edge its ends, number of its plane (−1 of none) and of its body */
    private function look(array $edge, bool $isFront = true): void
    {
        [$p, $q, $plane, $body] = $edge;
        [$du, $dv] = [$q[0] - $p[0], $q[1] - $p[1]];
        $length = sqrt($du * $du + $dv * $dv);
        if ($length < self::SHORTEST_MM) {
            return;
        }
        // Most edges lie wholly behind what covers whole cells, those beside them too.
        $isBehind = !$this->withHidden && $this->grid->hides(
            min($p[0], $q[0]) - self::DEPTH_MM,
            min($p[1], $q[1]) - self::DEPTH_MM,
            max($p[0], $q[0]) + self::DEPTH_MM,
            max($p[1], $q[1]) + self::DEPTH_MM,
            min($p[2], $q[2]),
        );
        if ($isBehind) {
            return;
        }
        [$du, $dv] = [$du / $length, $dv / $length];
        ++$this->edges;
        [$spans, $cells] = $this->beforeFloors($p, $q, $du, $dv, $length);
        if ([] === $spans && !$this->withHidden) {
            return;
        }
        [$own, $others] = $this->near($p, $q, $plane, $cells);
        // Most edges lie behind something: that comes first.
        $spans = $isFront ? $this->uncovered($spans, $others, $p, $q, $du, $dv, $length) : [];
        if ([] === $spans && !$this->withHidden) {
            return;
        }
        $real = $plane < 0 && [] === $own ? [[0.0, $length]] : $this->real($own, $p, $du, $dv, $isFront);
        $spans = Spans::common($spans, $real);
        self::add($this->visible, $spans, $p, $du, $dv, $body);
        if ($this->withHidden) {
            self::add($this->hidden, Spans::without(Spans::common([[0.0, $length]], $real), $spans), $p, $du, $dv, $body);
        }
    }

    /**
     * What of an edge lies before what covers whole cells.
     *
     * @param Place $p
     * @param Place $q
     *
     * @return array{list<Span>, list<int>} with the cells in which it is left
     */
    private function beforeFloors(array $p, array $q, float $du, float $dv, float $length): array
    {
        $grid = $this->grid;
        [$wide, $tall, $columns] = [$grid->wide, $grid->high, $grid->columns];
        $dw = ($q[2] - $p[2]) / $length;
        $spans = [[0.0, $length]];
        $cells = [];
        $first = max(0, (int) ((min($p[0], $q[0]) - $grid->u0 - 1e-6) / $wide));
        $last = min($columns - 1, (int) ((max($p[0], $q[0]) - $grid->u0 + 1e-6) / $wide));
        for ($column = $first; $column <= $last; ++$column) {
            [$ta, $tb] = [0.0, $length];
            $left = $grid->u0 + $column * $wide;
            if (abs($du) >= self::ALONGSIDE) {
                [$ta, $tb] = [($left - $p[0]) / $du, ($left + $wide - $p[0]) / $du];
                [$ta, $tb] = [max(0.0, min($ta, $tb)), min($length, max($ta, $tb))];
                if ($tb < $ta) {
                    continue;
                }
            }
            [$va, $vb] = [$p[1] + $dv * $ta, $p[1] + $dv * $tb];
            $low = max(0, (int) ((min($va, $vb) - $grid->v0 - 1e-6) / $tall));
            $high = min($grid->rows - 1, (int) ((max($va, $vb) - $grid->v0 + 1e-6) / $tall));
            for ($row = $low; $row <= $high; ++$row) {
                $k = $row * $columns + $column;
                $bottom = $grid->v0 + $row * $tall;
                [$tc, $td] = [$ta, $tb];
                // What runs along the border of a cell is seen beside it as well.
                $isOnBorder = abs($du) < self::ALONGSIDE && ($p[0] - $left < self::DEPTH_MM || $left + $wide - $p[0] < self::DEPTH_MM);
                if (abs($dv) < self::ALONGSIDE) {
                    $isOnBorder = $isOnBorder || $p[1] - $bottom < self::DEPTH_MM || $bottom + $tall - $p[1] < self::DEPTH_MM;
                } else {
                    [$tc, $td] = [($bottom - $p[1]) / $dv, ($bottom + $tall - $p[1]) / $dv];
                    [$tc, $td] = [max($ta, min($tc, $td)), min($tb, max($tc, $td))];
                }
                if ($td < $tc) {
                    continue;
                }
                if (!$isOnBorder && min($p[2] + $dw * $tc, $p[2] + $dw * $td) > $grid->floor[$k]) {
                    $spans = Spans::without($spans, [[$tc, $td]]);
                } else {
                    $cells[] = $k;
                }
            }
        }

        return [$spans, $cells];
    }

    /**
     * @param Place $p
     * @param Place $q
     * @param list<int> $cells
     *
     * @return array{list<Facet>, list<Facet>} facets in the edge's own plane, and those that may lie before it
     */
    private function near(array $p, array $q, int $plane, array $cells): array
    {
        [$u0, $u1] = [min($p[0], $q[0]) - self::DEPTH_MM, max($p[0], $q[0]) + self::DEPTH_MM];
        [$v0, $v1] = [min($p[1], $q[1]) - self::DEPTH_MM, max($p[1], $q[1]) + self::DEPTH_MM];
        $furthest = max($p[2], $q[2]) - self::DEPTH_MM / 10.0;
        [$own, $others] = [[], []];
        foreach ($cells as $k) {
            foreach ($this->grid->cells[$k] as $i) {
                if ($this->seen[$i] === $this->edges) {
                    continue;
                }
                $this->seen[$i] = $this->edges;
                $facet = $this->facets[$i];
                if ($facet->u1 < $u0 || $facet->u0 > $u1 || $facet->v1 < $v0 || $facet->v0 > $v1) {
                    continue;
                }
                if ($facet->plane === $plane) {
                    $own[] = $facet;
                } elseif ($facet->isFront && $facet->w0 < $furthest) {
                    $others[] = $facet;
                }
            }
        }
        if (\count($cells) > 1 && \count($others) > 1) {
            usort($others, static fn (Facet $a, Facet $b): int => $a->w0 <=> $b->w0);
        }

        return [$own, $others];
    }

    /**
     * @param list<Facet> $own
     * @param Place $p
     *
     * @return list<Span> where just one side of an edge goes on in its own plane
     */
    private function real(array $own, array $p, float $du, float $dv, bool $isFront): array
    {
        [$left, $right, $insideLeft, $insideRight] = [[], [], [], []];
        foreach ($own as $facet) {
            [$l, $r] = $facet->along($p[0], $p[1], $du, $dv);
            if ($facet->isFront === $isFront) {
                array_push($left, ...Spans::between($l));
                array_push($right, ...Spans::between($r));
            } else {
                array_push($insideLeft, ...Spans::between($l));
                array_push($insideRight, ...Spans::between($r));
            }
        }
        $left = Spans::without(Spans::union($left), $insideLeft);
        $right = Spans::without(Spans::union($right), $insideRight);

        return Spans::union([...Spans::without($left, $right), ...Spans::without($right, $left)]);
    }

    /**
     * @param list<Span> $spans
     * @param list<Facet> $others nearest first
     * @param Place $p
     * @param Place $q
     *
     * @return list<Span> what is left of an edge where it is hidden only if what lies to its left and what lies to its right both are
     */
    private function uncovered(array $spans, array $others, array $p, array $q, float $du, float $dv, float $length): array
    {
        [$left, $right, $isOne] = [$spans, $spans, true];
        foreach ($others as $facet) {
            if ([] === $left && [] === $right) {
                break;
            }
            [$atP, $atQ] = [$facet->depth($p[0], $p[1]) - $p[2], $facet->depth($q[0], $q[1]) - $q[2]];
            $atP = abs($atP) < self::DEPTH_MM ? 0.0 : $atP;
            $atQ = abs($atQ) < self::DEPTH_MM ? 0.0 : $atQ;
            if ($atP >= 0.0 && $atQ >= 0.0) {
                continue;
            }
            $from = $atP > 0.0 ? $length * $atP / ($atP - $atQ) : 0.0;
            $to = $atQ > 0.0 ? $length * $atP / ($atP - $atQ) : $length;
            [$l, $r, $differ] = $facet->along($p[0], $p[1], $du, $dv);
            $left = Spans::without($left, Spans::between($l), $from, $to);
            $isOne = $isOne && !$differ;
            $right = $isOne ? $left : Spans::without($right, Spans::between($r), $from, $to);
        }

        return $isOne ? $left : Spans::union([...$left, ...$right]);
    }

    /**
     * @param list<Piece> $lines
     * @param list<Span> $spans
     * @param Place $p
     */
    private static function add(array &$lines, array $spans, array $p, float $du, float $dv, int $body): void
    {
        foreach ($spans as [$a, $b]) {
            if ($b - $a > self::SHORTEST_MM) {
                $lines[] = [$p[0] + $du * $a, $p[1] + $dv * $a, $p[0] + $du * $b, $p[1] + $dv * $b, $body];
            }
        }
    }
}
