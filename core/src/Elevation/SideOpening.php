<?php

declare(strict_types=1);

namespace Plinth\Core\Elevation;

/** An opening as it stands on a side: from its left to its right along that, and from its sill up to its head; mm. */
final readonly class SideOpening
{
    /**
     * @param string $id of the opening, or of the outline that was traced on the side
     * @param float $floor of the storey it belongs to, and where the next one begins; of what was traced all there is
     * @param SideWall|null $in of what the plan has: the wall that it stands in
     * @param float|null $edgePlusMinus of what was traced: mm by which an edge may be off as its picture shows it
     * @param float|null $plusMinusPer10m of what was traced: ± of 10 m of its drawing
     */
    public function __construct(
        public string $id,
        public float $left,
        public float $right,
        public float $sill,
        public float $head,
        public float $floor = -\INF,
        public float $ceiling = \INF,
        public ?SideWall $in = null,
        public ?float $edgePlusMinus = null,
        public ?float $plusMinusPer10m = null,
    ) {
    }

    /** @return float|null ± of its width and of its heights over a floor, mm; null where nothing says how large its drawing is */
    public function plusMinus(float $floor): ?float
    {
        if (null === $this->edgePlusMinus || null === $this->plusMinusPer10m) {
            return null;
        }
        // Two edges, and what the drawing's size leaves open between them.
        $reach = max($this->width(), abs($this->head - $floor));

        return hypot(\M_SQRT2 * $this->edgePlusMinus, $this->plusMinusPer10m * $reach / 10_000.0);
    }

    /** How much of both together two of them share, from 0 to 1. */
    public function covers(self $other): float
    {
        $both = max(0.0, min($this->right, $other->right) - max($this->left, $other->left))
            * max(0.0, min($this->head, $other->head) - max($this->sill, $other->sill));
        $all = $this->width() * ($this->head - $this->sill) + $other->width() * ($other->head - $other->sill) - $both;

        return $all <= 0.0 ? 0.0 : $both / $all;
    }

    public function width(): float
    {
        return $this->right - $this->left;
    }

    /** How much of both together two of them share along the side, from 0 to 1; 0 where one does not stand in the other's storey. */
    public function shares(self $other): float
    {
        $middle = ($other->sill + $other->head) / 2.0;
        $own = ($this->sill + $this->head) / 2.0;
        if ($middle < $this->floor || $middle > $this->ceiling || $own < $other->floor || $own > $other->ceiling) {
            return 0.0;
        }
        $both = min($this->right, $other->right) - max($this->left, $other->left);

        return $both <= 0.0 ? 0.0 : $both / (max($this->right, $other->right) - min($this->left, $other->left));
    }
}
