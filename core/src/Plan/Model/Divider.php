<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Geometry\Point;

/** A line that bounds rooms where there is no wall. */
final readonly class Divider
{
    public function __construct(public string $id, public Point $from, public Point $to)
    {
    }

    /** @return array{float, float, float, float} round it and a millimetre more: xmin, ymin, xmax, ymax */
    public function box(): array
    {
        $r = Wall::JOIN_MM;

        return [
            min($this->from->x, $this->to->x) - $r,
            min($this->from->y, $this->to->y) - $r,
            max($this->from->x, $this->to->x) + $r,
            max($this->from->y, $this->to->y) + $r,
        ];
    }
}
