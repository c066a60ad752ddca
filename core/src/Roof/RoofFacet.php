<?php

declare(strict_types=1);

namespace Plinth\Core\Roof;

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

    /** @return float mm² as it lies, by Newell's normal */
    public function area(): float
    {
        [$nx, $ny, $nz] = $this->normal();

        return sqrt($nx ** 2 + $ny ** 2 + $nz ** 2) / 2.0;
    }

    /** @return float mm² seen from above; a hole in a facet counts negative */
    public function planArea(): float
    {
        return $this->normal()[2] / 2.0;
    }

    /** @return Place its direction, twice its area long */
    private function normal(): array
    {
        [$nx, $ny, $nz] = [0.0, 0.0, 0.0];
        [$ox, $oy, $oz] = $this->corners[0];
        for ($i = 1, $n = \count($this->corners); $i + 1 < $n; ++$i) {
            [$ax, $ay, $az] = $this->corners[$i];
            [$bx, $by, $bz] = $this->corners[$i + 1];
            [$ux, $uy, $uz, $vx, $vy, $vz] = [$ax - $ox, $ay - $oy, $az - $oz, $bx - $ox, $by - $oy, $bz - $oz];
            $nx += $uy * $vz - $uz * $vy;
            $ny += $uz * $vx - $ux * $vz;
            $nz += $ux * $vy - $uy * $vx;
        }

        return [$nx, $ny, $nz];
    }
}
