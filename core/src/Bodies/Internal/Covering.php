<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Geometry\Polygon;

/**
 * A part of the plan that something lies over, from one plane up to another.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Polygon
 */
final readonly class Covering
{
    /** @var array{float, float, float, float} */
    public array $box;
    /** how high it lies where it lies highest, and lowest, mm */
    public float $highest;
    public float $lowest;

    /** @param non-empty-list<non-empty-list<array{float, float}>> $rings the outer one, then holes */
    public function __construct(public array $rings, public Plane $bottom, public Plane $top)
    {
        $this->box = Polygon::bounds($rings[0]);
        $this->highest = max(array_map(static fn (array $p): float => $top->at(...$p), $rings[0]));
        $this->lowest = min(array_map(static fn (array $p): float => $bottom->at(...$p), $rings[0]));
    }

    /** @param array{float, float, float, float} $box */
    public function isNear(array $box): bool
    {
        return $this->box[0] < $box[2] && $this->box[2] > $box[0] && $this->box[1] < $box[3] && $this->box[3] > $box[1];
    }

    public function covers(float $x, float $y): bool
    {
        foreach ($this->rings as $n => $ring) {
            if (Polygon::contains($ring, $x, $y) !== (0 === $n)) {
                return false;
            }
        }

        return true;
    }
}
