<?php

declare(strict_types=1);

namespace Plinth\Core\Elevation;

use Plinth\Core\Geometry\Point;

/** The vertical plane of an elevation or section, by its line on the plan from left to right as it is looked at. */
final readonly class SideLine
{
    private function __construct(private Point $from, private Point $to)
    {
    }

    /** @param Point $to apart from $from */
    public static function between(Point $from, Point $to): self
    {
        return new self($from, $to);
    }

    /** @return float mm */
    public function length(): float
    {
        return $this->from->distanceTo($this->to);
    }

    /** @return float x on the side of what lies at a point of the plan, mm from its left end */
    public function along(Point $p): float
    {
        return (($p->x - $this->from->x) * ($this->to->x - $this->from->x) + ($p->y - $this->from->y) * ($this->to->y - $this->from->y)) / $this->length();
    }

    /** @return float how far behind the plane it lies as it is looked at, mm; before it, negative */
    public function behind(Point $p): float
    {
        return (($this->to->x - $this->from->x) * ($p->y - $this->from->y) - ($this->to->y - $this->from->y) * ($p->x - $this->from->x)) / $this->length();
    }
}
