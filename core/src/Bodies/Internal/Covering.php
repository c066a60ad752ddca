<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Geometry\Polygon;

/**
 * A part of the plan that something lies over, from one plane up to another. Its edges are kept in rows from below, so that a large one is
 * not gone through as a whole for each wall.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Cut
 *
 * @phpstan-type Edge array{array{float, float}, array{float, float}}
 */
final readonly class Covering
{
    private const MOST_ROWS = 512;

    /** @var array{float, float, float, float} */
    public array $box;
    /** how high it lies where it lies highest, and lowest, mm */
    public float $highest;
    public float $lowest;
    /** @var array<int, list<Edge>> */
    private array $rows;
    private float $rowMm;

    /** @param non-empty-list<Ring> $rings the outer one, then holes */
    public function __construct(public array $rings, public HeightPlane $bottom, public HeightPlane $top)
    {
        $this->box = Polygon::bounds($rings[0]);
        $this->highest = max(array_map(static fn (array $p): float => $top->at(...$p), $rings[0]));
        $this->lowest = min(array_map(static fn (array $p): float => $bottom->at(...$p), $rings[0]));
        $count = max(1, min(self::MOST_ROWS, intdiv(array_sum(array_map(\count(...), $rings)), 4)));
        $this->rowMm = max(1.0, ($this->box[3] - $this->box[1]) / $count);
        $rows = [];
        foreach ($rings as $ring) {
            $p = $ring[\count($ring) - 1];
            foreach ($ring as $q) {
                for ($row = $this->row(min($p[1], $q[1])), $last = $this->row(max($p[1], $q[1])); $row <= $last; ++$row) {
                    $rows[$row][] = [$p, $q];
                }
                $p = $q;
            }
        }
        $this->rows = $rows;
    }

    /** @param array{float, float, float, float} $box */
    public function isNear(array $box): bool
    {
        return $this->box[0] < $box[2] && $this->box[2] > $box[0] && $this->box[1] < $box[3] && $this->box[3] > $box[1];
    }

    /** By the even-odd rule. */
    public function covers(float $x, float $y): bool
    {
        $inside = false;
        foreach ($this->rows[$this->row($y)] ?? [] as [$p, $q]) {
            if (($p[1] > $y) !== ($q[1] > $y) && $x < ($q[0] - $p[0]) * ($y - $p[1]) / ($q[1] - $p[1]) + $p[0]) {
                $inside = !$inside;
            }
        }

        return $inside;
    }

    /**
     * @param array{float, float, float, float} $box
     *
     * @return list<Edge> those that may pass through a box; some twice
     */
    public function edgesNear(array $box): array
    {
        $near = [];
        for ($row = $this->row($box[1]), $last = $this->row($box[3]); $row <= $last; ++$row) {
            foreach ($this->rows[$row] ?? [] as $edge) {
                [$p, $q] = $edge;
                if (
                    ($p[0] < $box[2] || $q[0] < $box[2]) && ($p[0] > $box[0] || $q[0] > $box[0])
                    && ($p[1] < $box[3] || $q[1] < $box[3]) && ($p[1] > $box[1] || $q[1] > $box[1])
                ) {
                    $near[] = $edge;
                }
            }
        }

        return $near;
    }

    private function row(float $y): int
    {
        return (int) floor(max(-1.0, min(self::MOST_ROWS + 1.0, ($y - $this->box[1]) / $this->rowMm)));
    }
}
