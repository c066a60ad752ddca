<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/** A line that bounds rooms where there is no wall. */
final readonly class Divider
{
    /** @throws UnusableValue */
    public function __construct(public string $id, public Point $from, public Point $to)
    {
        Checked::places("divider $id", $from, $to);
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
