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
    /** @var list<list<int>> by cell, in the order in which they were put there: numbers of facets */
    public array $cells;
    /** @var list<float> by cell: depth behind which nothing is seen */
    public array $floor;
    /** @var array<int, true> facets of which something may be seen */
    public array $open = [];
    /** @var array{u: array<int, list<array{float, float}>>, v: array<int, list<array{float, float}>>} by cell: strips that are covered */
    private array $strips = ['u' => [], 'v' => []];
    /** @var array{u: array<int, float>, v: array<int, float>} by cell: the deepest of them */
    private array $deepest = ['u' => [], 'v' => []];

    /**
     * Nothing yet, over a box.
     *
     * @param array{float, float, float, float} $box least u and v, most u and v
     * @param int $count of what will lie there, about
     * @param bool $isAll whether what lies behind others is kept as well
     */
    public function __construct(array $box, int $count, private readonly bool $isAll = false)
    {
        [$this->u0, $this->v0, $u1, $v1] = $box;
        [$wide, $high] = [max(self::LEAST_MM, $u1 - $this->u0), max(self::LEAST_MM, $v1 - $this->v0)];
        $size = max(self::LEAST_CELL_MM, sqrt($wide * $high / max(1, $count)));
        [$this->columns, $this->rows] = [(int) max(1.0, ceil($wide / $size)), (int) max(1.0, ceil($high / $size))];
        [$this->wide, $this->high] = [$wide / $this->columns, $high / $this->rows];
        $this->cells = array_fill(0, $this->columns * $this->rows, []);
        $this->floor = array_fill(0, $this->columns * $this->rows, \INF);
    }

    /** @param non-empty-list<Facet> $facets */
    public static function over(array $facets, bool $isAll = false): self
    {
        $grid = new self([
            min(array_map(static fn (Facet $f): float => $f->u0, $facets)),
            min(array_map(static fn (Facet $f): float => $f->v0, $facets)),
            max(array_map(static fn (Facet $f): float => $f->u1, $facets)),
            max(array_map(static fn (Facet $f): float => $f->v1, $facets)),
        ], \count($facets), $isAll);
        $order = array_keys($facets);
        // Nearest first: what lies behind is left out.
        usort($order, static fn (int $a, int $b): int => $facets[$a]->w0 <=> $facets[$b]->w0);
        foreach ($order as $number) {
            $grid->put($facets[$number], $number);
        }

        return $grid;
    }

    /** Whether nothing is seen of what lies in a box, no nearer than a depth. */
    public function hides(float $u0, float $v0, float $u1, float $v1, float $nearest): bool
    {
        $left = max(0, (int) (($u0 - $this->u0) / $this->wide));
        $right = min($this->columns - 1, (int) (($u1 - $this->u0) / $this->wide));
        $high = min($this->rows - 1, (int) (($v1 - $this->v0) / $this->high));
        for ($row = max(0, (int) (($v0 - $this->v0) / $this->high)); $row <= $high; ++$row) {
            for ($column = $left; $column <= $right; ++$column) {
                if ($nearest <= $this->floor[$row * $this->columns + $column]) {
                    return false;
                }
            }
        }

        return true;
    }

    public function put(Facet $f, int $number): void
    {
        [$left, $right] = [(int) (($f->u0 - $this->u0) / $this->wide), min($this->columns - 1, (int) (($f->u1 - $this->u0) / $this->wide))];
        [$low, $high] = [(int) (($f->v0 - $this->v0) / $this->high), min($this->rows - 1, (int) (($f->v1 - $this->v0) / $this->high))];
        for ($row = $low; $row <= $high; ++$row) {
            [$va, $vb] = [$this->v0 + $row * $this->high, $this->v0 + ($row + 1) * $this->high];
            for ($column = $left; $column <= $right; ++$column) {
                $k = $row * $this->columns + $column;
                [$ua, $ub] = [$this->u0 + $column * $this->wide, $this->u0 + ($column + 1) * $this->wide];
                $nearest = min($f->a * $ua, $f->a * $ub) + min($f->b * $va, $f->b * $vb) + $f->c;
                if (max($nearest, $f->w0) > $this->floor[$k]) {
                    continue;
                }
                $this->cells[$k][] = $number;
                $this->open[$number] = true;
                if (!$f->isFront || $this->isAll) {
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
                    $this->floor[$k] = min($this->floor[$k], $furthest);
                    continue;
                }
                [$axis, $strip, $whole] = $isWide ? ['v', [$vl, $vh], [$va, $vb]] : ['u', [$ul, $ur], [$ua, $ub]];
                $this->strips[$axis][$k] = Spans::union([...$this->strips[$axis][$k] ?? [], $strip]);
                $this->deepest[$axis][$k] = max($this->deepest[$axis][$k] ?? -\INF, $furthest);
                foreach ($this->strips[$axis][$k] as [$from, $to]) {
                    if ($from <= $whole[0] + self::BEHIND_MM && $to >= $whole[1] - self::BEHIND_MM) {
                        $this->floor[$k] = min($this->floor[$k], $this->deepest[$axis][$k]);
                    }
                }
            }
        }
    }
}
