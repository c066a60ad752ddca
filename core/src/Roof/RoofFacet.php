<?php

declare(strict_types=1);

namespace Plinth\Core\Roof;

use Plinth\Core\Geometry\Newell;

/**
 * One plane piece of a roof: a slope, or the upright wall under a gable.
 *
 * @phpstan-type Place array{float, float, float}
 */
final readonly class RoofFacet
{
    /**
     * @param int $ring of the outline, and which edge of it the facet rises over
     * @param list<Place> $corners x, y, z, mm; a slope's counter-clockwise seen from above
     */
    public function __construct(public int $ring, public int $edge, public bool $isSlope, public array $corners)
    {
    }

    /** @return float mm² as it lies */
    public function area(): float
    {
        [$nx, $ny, $nz] = Newell::normal($this->corners);

        return sqrt($nx ** 2 + $ny ** 2 + $nz ** 2) / 2.0;
    }

    /** @return float mm² seen from above; a hole in a facet counts negative */
    public function planArea(): float
    {
        return Newell::normal($this->corners)[2] / 2.0;
    }
}
