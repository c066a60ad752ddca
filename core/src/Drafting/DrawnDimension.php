<?php

declare(strict_types=1);

namespace Plinth\Core\Drafting;

use Plinth\Core\Geometry\Point;

/**
 * A dimension by hand (ISO 129-1): how far two places lie apart along a direction, told at a line beside them.
 */
final readonly class DrawnDimension
{
    /** @var array{float, float} of the direction it is measured in, a unit long */
    private array $along;

    /**
     * @param float|null $direction degrees from x; null for straight from one place to the other
     * @param float $off mm from the first place to the dimension line, to the left of the direction
     */
    public function __construct(public Point $from, public Point $to, ?float $direction, public float $off)
    {
        $apart = $from->distanceTo($to);
        $this->along = match (true) {
            null !== $direction => [cos(deg2rad($direction)), sin(deg2rad($direction))],
            $apart > 0.0 => [($to->x - $from->x) / $apart, ($to->y - $from->y) / $apart],
            default => [1.0, 0.0],
        };
    }

    /** @return float mm */
    public function measures(): float
    {
        return abs($this->ahead());
    }

    /** @return array{Point, Point} ends of the dimension line */
    public function line(): array
    {
        [$ux, $uy] = $this->along;
        $start = $this->from->plus(-$uy * $this->off, $ux * $this->off);

        return [$start, $start->plus($ux * $this->ahead(), $uy * $this->ahead())];
    }

    private function ahead(): float
    {
        return ($this->to->x - $this->from->x) * $this->along[0] + ($this->to->y - $this->from->y) * $this->along[1];
    }
}
