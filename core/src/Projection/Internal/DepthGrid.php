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
    /** What lies so far behind what covers a cell is hidden there, mm. */
    private const BEHIND_MM = 1e-3;

    public readonly float $u0;
    public readonly float $v0;
    public readonly float $size;
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
        [$columns, $rows] = [(int) (($u1 - $u0) / $size) + 1, (int) (($v1 - $v0) / $size) + 1];
        $order = array_keys($facets);
        usort($order, static fn (int $a, int $b): int => $facets[$a]->w0 <=> $facets[$b]->w0);
        $cells = array_fill(0, $columns * $rows, []);
        $floor = array_fill(0, $columns * $rows, \INF);
        $open = [];
        foreach ($order as $i) {
            $f = $facets[$i];
            [$left, $right] = [(int) (($f->u0 - $u0) / $size), (int) (($f->u1 - $u0) / $size)];
            [$low, $high] = [(int) (($f->v0 - $v0) / $size), (int) (($f->v1 - $v0) / $size)];
            for ($row = $low; $row <= $high; ++$row) {
                [$va, $vb] = [$v0 + $row * $size, $v0 + ($row + 1) * $size];
                for ($column = $left; $column <= $right; ++$column) {
                    $k = $row * $columns + $column;
                    [$ua, $ub] = [$u0 + $column * $size, $u0 + ($column + 1) * $size];
                    $nearest = min($f->a * $ua, $f->a * $ub) + min($f->b * $va, $f->b * $vb) + $f->c;
                    if (max($nearest, $f->w0) > $floor[$k]) {
                        continue;
                    }
                    $cells[$k][] = $i;
                    $open[$i] = true;
                    if ($f->isFront && $f->covers($ua, $va, $ub, $vb)) {
                        $furthest = max($f->a * $ua, $f->a * $ub) + max($f->b * $va, $f->b * $vb) + $f->c;
                        $floor[$k] = min($floor[$k], $furthest + self::BEHIND_MM);
                    }
                }
            }
        }
        [$this->u0, $this->v0, $this->size, $this->columns, $this->rows] = [$u0, $v0, $size, $columns, $rows];
        [$this->cells, $this->floor, $this->open] = [array_values($cells), array_values($floor), $open];
    }
}
