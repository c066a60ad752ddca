<?php

declare(strict_types=1);

namespace Plinth\Core\Roof\Internal;

/**
 * The line on which one edge of an outline moves inward while height passes: n·p = level + slowness · (height − start), in metres. One that
 * does not move yet, or ever, stands upright on its level.
 *
 * @internal
 */
final readonly class Front
{
    /** towards the inside, to the left of the direction */
    public float $nx;
    public float $ny;

    /**
     * @param float $dx direction of the edge, and $dy; of unit length
     * @param float $slowness run over rise; 0 for a gable
     * @param float $start height from which it moves; INF for a gable
     * @param array{int, int}|null $source ring of the outline and edge of it; null for a step between two that run in one line
     */
    public function __construct(
        public float $dx,
        public float $dy,
        public float $level,
        public float $slowness,
        public float $start,
        public ?array $source,
    ) {
        $this->nx = -$dy;
        $this->ny = $dx;
    }

    /**
     * @param array{float, float} $through
     * @param array{int, int}|null $source
     */
    public static function through(float $dx, float $dy, array $through, float $slowness, float $start, ?array $source): self
    {
        return new self($dx, $dy, $dx * $through[1] - $dy * $through[0], $slowness, $start, $source);
    }

    public function cross(self $other): float
    {
        return $this->nx * $other->ny - $this->ny * $other->nx;
    }

    public function dot(self $other): float
    {
        return $this->nx * $other->nx + $this->ny * $other->ny;
    }
}
