<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/** A column about its centre, mm; a round one is an ellipse as wide and as deep as that. */
final readonly class Column
{
    /** @throws UnusableValue */
    public function __construct(
        public string $id,
        public Point $centre,
        public float $width,
        public float $depth,
        public bool $round = false,
    ) {
        Checked::places("column $id", $centre);
        Checked::size("column $id/width", $width);
        Checked::size("column $id/depth", $depth);
    }

    /** @return array{float, float, float, float} round it, xmin, ymin, xmax, ymax, mm */
    public function box(): array
    {
        // The polygon that stands for a round one reaches a little beyond it.
        $part = $this->round ? 0.505 : 0.5;
        [$x, $y] = [$part * $this->width, $part * $this->depth];

        return [$this->centre->x - $x, $this->centre->y - $y, $this->centre->x + $x, $this->centre->y + $y];
    }

    /** mm² */
    public function area(): float
    {
        return ($this->round ? \M_PI / 4.0 : 1.0) * $this->width * $this->depth;
    }

    /** @return non-empty-list<array{float, float}> counter-clockwise; a round one as a polygon of the same area */
    public function outline(): array
    {
        $ring = SettingOut::column($this->centre->x, $this->centre->y, $this->width, $this->depth, $this->round);
        if (!$this->round) {
            return $ring;
        }
        $n = \count($ring);
        // A regular polygon in a circle of radius r has n/2 r² sin(2π/n).
        $grow = sqrt(2.0 * \M_PI / ($n * sin(2.0 * \M_PI / $n)));

        return array_map(
            fn (array $p): array => [
                $this->centre->x + $grow * ($p[0] - $this->centre->x),
                $this->centre->y + $grow * ($p[1] - $this->centre->y),
            ],
            $ring,
        );
    }
}
