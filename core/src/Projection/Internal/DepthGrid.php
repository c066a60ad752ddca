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
    /** of what nothing covers in a cell: what would leave more pieces is not taken off */
    private const MOST_LEFT = 24;
    /** What lies so far behind what covers a cell is hidden there, and pieces that are smaller are none, mm. */
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
    /** @var array<int, float> by cell: depth behind which nothing is seen */
    public array $floor;
    /** @var array<int, true> facets of which something may be seen */
    public array $open = [];
    /** @var array<int, list<array{float, float, float, float}>> by cell: boxes of it that nothing covers yet; all of it where none are */
    private array $left = [];
    /** @var array<int, float> by cell: the deepest of what covers it so far */
    private array $deepest = [];

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
        $boxes = null;
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
                $this->cover($k, $f, $boxes ??= $f->boxes(), [$ua, $va, $ub, $vb]);
            }
        }
    }

    /**
     * Takes what a facet covers of a cell off what is left of it; behind the deepest of those that cover all of it nothing is seen.
     *
     * @param list<array{float, float, float, float}> $boxes that the facet is made of
     * @param array{float, float, float, float} $cell
     */
    private function cover(int $k, Facet $f, array $boxes, array $cell): void
    {
        if ([] === ($this->left[$k] ?? null)) {
            return;
        }
        // What is aslant covers as much of the cell as it holds of it.
        $boxes = [] === $boxes ? [[$f->u0, $f->v0, $f->u1, $f->v1]] : $boxes;
        foreach ($boxes as [$u0, $v0, $u1, $v1]) {
            [$u0, $v0, $u1, $v1] = [max($u0, $cell[0]), max($v0, $cell[1]), min($u1, $cell[2]), min($v1, $cell[3])];
            if ($u1 - $u0 < self::BEHIND_MM || $v1 - $v0 < self::BEHIND_MM || !$f->covers($u0, $v0, $u1, $v1)) {
                continue;
            }
            $left = [];
            foreach ($this->left[$k] ?? [$cell] as $one) {
                array_push($left, ...self::without($one, $u0, $v0, $u1, $v1));
            }
            if (\count($left) > self::MOST_LEFT) {
                continue;
            }
            $furthest = max($f->a * $u0, $f->a * $u1) + max($f->b * $v0, $f->b * $v1) + $f->c + self::BEHIND_MM;
            $this->deepest[$k] = max($this->deepest[$k] ?? -\INF, $furthest);
            $this->left[$k] = $left;
            if ([] === $left) {
                $this->floor[$k] = min($this->floor[$k], $this->deepest[$k]);

                return;
            }
        }
    }

    /**
     * @param array{float, float, float, float} $one
     *
     * @return list<array{float, float, float, float}> boxes that are left of one when another is taken off it
     */
    private static function without(array $one, float $u0, float $v0, float $u1, float $v1): array
    {
        [$a, $b, $c, $d] = $one;
        if ($u0 >= $c || $u1 <= $a || $v0 >= $d || $v1 <= $b) {
            return [$one];
        }
        $left = [];
        if ($u0 - $a > self::BEHIND_MM) {
            $left[] = [$a, $b, $u0, $d];
        }
        if ($c - $u1 > self::BEHIND_MM) {
            $left[] = [$u1, $b, $c, $d];
        }
        [$a, $c] = [max($a, $u0), min($c, $u1)];
        if ($v0 - $b > self::BEHIND_MM) {
            $left[] = [$a, $b, $c, $v0];
        }
        if ($d - $v1 > self::BEHIND_MM) {
            $left[] = [$a, $v1, $c, $d];
        }

        return $left;
    }
}
