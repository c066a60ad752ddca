<?php

declare(strict_types=1);

namespace Plinth\Core\Elevation;

use Plinth\Core\Geometry\Point;

/** The vertical plane of an elevation or section, by its line on the plan from left to right as it is looked at. */
final readonly class SideLine
{
    /** sine of the least turn that makes a corner */
    private const TURNS = 0.02;

    private function __construct(private Point $from, private Point $to)
    {
    }

    /** @param Point $to apart from $from */
    public static function between(Point $from, Point $to): self
    {
        return new self($from, $to);
    }

    /**
     * Corners of a ring that can be seen as such: where it turns.
     *
     * @param list<Point> $ring mm
     *
     * @return list<Point>
     */
    public static function corners(array $ring): array
    {
        $n = \count($ring);
        $turning = [];
        foreach ($ring as $i => $p) {
            [$before, $after] = [$ring[($i + $n - 1) % $n], $ring[($i + 1) % $n]];
            $cross = ($p->x - $before->x) * ($after->y - $p->y) - ($p->y - $before->y) * ($after->x - $p->x);
            if (abs($cross) > self::TURNS * $before->distanceTo($p) * $p->distanceTo($after)) {
                $turning[] = $p;
            }
        }

        return $turning;
    }

    /** @return float mm */
    public function length(): float
    {
        return $this->from->distanceTo($this->to);
    }

    /** @return float x on the side of what lies at a point of the plan, mm from its left end */
    public function along(Point $p): float
    {
        [$dx, $dy] = [$this->to->x - $this->from->x, $this->to->y - $this->from->y];

        return (($p->x - $this->from->x) * $dx + ($p->y - $this->from->y) * $dy) / $this->length();
    }

    /** @return float how far behind the plane it lies as it is looked at, mm; before it, negative */
    public function behind(Point $p): float
    {
        [$dx, $dy] = [$this->to->x - $this->from->x, $this->to->y - $this->from->y];

        return ($dx * ($p->y - $this->from->y) - $dy * ($p->x - $this->from->x)) / $this->length();
    }
}
