<?php

declare(strict_types=1);

namespace Plinth\Core\Projection\Internal;

/**
 * Which facets lie where in a view, by cells; in each of them what lies behind one that covers all of it is left out.
 *
 * @internal
 */
final class DepthGrid
{
    private const LEAST_CELL_MM = 250.0;
    private const LEAST_MM = 1.0;
    /** What lies so far behind what covers a cell is hidden there, mm. */
    private const BEHIND_MM = 1e-3;

    public readonly float $u0;
    public readonly float $v0;
    /** mm, of a cell along u and along v: all of them together are as large as what is seen */
    public readonly float $wide;
    public readonly float $high;
    public readonly int $columns;
    public readonly int $rows;
    /** @var list<list<int>> by cell, nearest first: numbers of facets */
    public readonly array $cells;
    /** @var list<float> by cell: depth behind which nothing is seen */
    public readonly array $floor;

    /** @var array<int, true> facets of which something may be seen */
    public readonly array $open;

    /** @param non-empty-list<Facet> $facets */
    public function __construct(array $facets)
    {
        $u0 = min(array_map(static fn (Facet $f): float => $f->u0, $facets));
        $v0 = min(array_map(static fn (Facet $f): float => $f->v0, $facets));
        $u1 = max(array_map(static fn (Facet $f): float => $f->u1, $facets));
        $v1 = max(array_map(static fn (Facet $f): float => $f->v1, $facets));
        $size = max(self::LEAST_CELL_MM, sqrt(($u1 - $u0) * ($v1 - $v0) / \count($facets)));
        [$columns, $rows] = [(int) max(1.0, ceil(($u1 - $u0) / $size)), (int) max(1.0, ceil(($v1 - $v0) / $size))];
        [$wide, $tall] = [max(self::LEAST_MM, $u1 - $u0) / $columns, max(self::LEAST_MM, $v1 - $v0) / $rows];
        $order = array_keys($facets);
        usort($order, static fn (int $a, int $b): int => $facets[$a]->w0 <=> $facets[$b]->w0);
        $cells = array_fill(0, $columns * $rows, []);
        $floor = array_fill(0, $columns * $rows, \INF);
        $open = [];
        [$strips, $deepest] = [['u' => [], 'v' => []], ['u' => [], 'v' => []]];
        foreach ($order as $i) {
            $f = $facets[$i];
            [$left, $right] = [(int) (($f->u0 - $u0) / $wide), min($columns - 1, (int) (($f->u1 - $u0) / $wide))];
            [$low, $high] = [(int) (($f->v0 - $v0) / $tall), min($rows - 1, (int) (($f->v1 - $v0) / $tall))];
            for ($row = $low; $row <= $high; ++$row) {
                [$va, $vb] = [$v0 + $row * $tall, $v0 + ($row + 1) * $tall];
                for ($column = $left; $column <= $right; ++$column) {
                    $k = $row * $columns + $column;
                    [$ua, $ub] = [$u0 + $column * $wide, $u0 + ($column + 1) * $wide];
                    $nearest = min($f->a * $ua, $f->a * $ub) + min($f->b * $va, $f->b * $vb) + $f->c;
                    if (max($nearest, $f->w0) > $floor[$k]) {
                        continue;
                    }
                    $cells[$k][] = $i;
                    $open[$i] = true;
                    if (!$f->isFront) {
                        continue;
                    }
                    // All of the cell, or a strip of it from edge to edge that covers it with others.
                    $isWide = $f->u0 <= $ua + self::BEHIND_MM && $f->u1 >= $ub - self::BEHIND_MM;
                    $isTall = $f->v0 <= $va + self::BEHIND_MM && $f->v1 >= $vb - self::BEHIND_MM;
                    if (!$isWide && !$isTall) {
                        continue;
                    }
                    [$ul, $ur, $vl, $vh] = [max($ua, $f->u0), min($ub, $f->u1), max($va, $f->v0), min($vb, $f->v1)];
                    if (!$f->covers($ul, $vl, $ur, $vh)) {
                        continue;
                    }
                    $furthest = max($f->a * $ul, $f->a * $ur) + max($f->b * $vl, $f->b * $vh) + $f->c + self::BEHIND_MM;
                    if ($isWide && $isTall) {
                        $floor[$k] = min($floor[$k], $furthest);
                        continue;
                    }
                    [$axis, $strip, $whole] = $isWide ? ['v', [$vl, $vh], [$va, $vb]] : ['u', [$ul, $ur], [$ua, $ub]];
                    $strips[$axis][$k] = Spans::union([...$strips[$axis][$k] ?? [], $strip]);
                    $deepest[$axis][$k] = max($deepest[$axis][$k] ?? -\INF, $furthest);
                    foreach ($strips[$axis][$k] as [$from, $to]) {
                        if ($from <= $whole[0] + self::BEHIND_MM && $to >= $whole[1] - self::BEHIND_MM) {
                            $floor[$k] = min($floor[$k], $deepest[$axis][$k]);
                        }
                    }
                }
            }
        }
        [$this->u0, $this->v0, $this->wide, $this->high, $this->columns, $this->rows] = [$u0, $v0, $wide, $tall, $columns, $rows];
        [$this->cells, $this->floor, $this->open] = [$cells, $floor, $open];
    }
}
