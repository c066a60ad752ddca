<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Geometry\Arc;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/** A straight line or an arc that bounds rooms where there is no wall. */
final readonly class Divider
{
    /**
     * @param float $rise of an arc over its chord, mm, positive to the left; 0 for a straight one
     *
     * @throws UnusableValue
     */
    public function __construct(public string $id, public Point $from, public Point $to, public float $rise = 0.0)
    {
        Checked::places("divider $id", $from, $to);
        Checked::within("divider $id/rise", $rise, Wall::MOST_RISE_MM);
    }

    public function arc(): ?Arc
    {
        return abs($this->rise) < Arc::LEAST_RISE_MM || $this->from->distanceTo($this->to) <= Wall::JOIN_MM
            ? null
            : new Arc($this->from, $this->to, $this->rise);
    }

    /** @return array{float, float, float, float} round it and a millimetre more: xmin, ymin, xmax, ymax */
    public function box(): array
    {
        // No point of an arc lies further off its chord's middle than its rise, or than its ends.
        $r = Wall::JOIN_MM + abs($this->rise);

        return [
            min($this->from->x, $this->to->x) - $r,
            min($this->from->y, $this->to->y) - $r,
            max($this->from->x, $this->to->x) + $r,
            max($this->from->y, $this->to->y) + $r,
        ];
    }
}
