<?php

declare(strict_types=1);

namespace Plinth\Core\Elevation;

/** An opening as it stands on a side: from its left to its right along that, and from its sill up to its head; mm. */
final readonly class SideOpening
{
    /**
     * @param string $id of the opening, or of the outline that was traced on the side
     * @param float $floor of the storey it belongs to, and where the next one begins; of what was traced all there is
     */
    public function __construct(
        public string $id,
        public float $left,
        public float $right,
        public float $sill,
        public float $head,
        public float $floor = -\INF,
        public float $ceiling = \INF,
    ) {
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
