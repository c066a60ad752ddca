<?php

declare(strict_types=1);

namespace Plinth\Core\Plan;

use Plinth\Core\Geometry\Point;

/** A straight wall. Its ends are those of the centre line, whichever line was traced. */
final readonly class Wall
{
    public const THICKEST_MM = 5000.0;
    /** Ends nearer than this are one node, so a wall must be longer. */
    public const JOIN_MM = 1.0;

    public function __construct(
        public string $id,
        public Point $from,
        public Point $to,
        public float $thickness,
        public Line $line = Line::Centre,
        public ?float $height = null,
    ) {
    }

    public function length(): float
    {
        return $this->from->distanceTo($this->to);
    }

    /** @return array{array{float, float}, array{float, float}, array{float, float}, array{float, float}} the body with squared ends, counter-clockwise from its start's right */
    public function body(): array
    {
        return $this->piece(0.0, $this->length());
    }

    /**
     * The body between two distances from the start, mm.
     *
     * @return array{array{float, float}, array{float, float}, array{float, float}, array{float, float}}
     */
    public function piece(float $start, float $end): array
    {
        $length = $this->length();
        $dx = ($this->to->x - $this->from->x) / $length;
        $dy = ($this->to->y - $this->from->y) / $length;
        $nx = -$dy * $this->thickness / 2.0;
        $ny = $dx * $this->thickness / 2.0;
        $x1 = $this->from->x + $start * $dx;
        $y1 = $this->from->y + $start * $dy;
        $x2 = $this->from->x + $end * $dx;
        $y2 = $this->from->y + $end * $dy;

        return [[$x1 - $nx, $y1 - $ny], [$x2 - $nx, $y2 - $ny], [$x2 + $nx, $y2 + $ny], [$x1 + $nx, $y1 + $ny]];
    }
}
