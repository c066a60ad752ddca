<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/**
 * How a camera's lens bends straight lines, by one term: a point at distance r from the centre belongs at r / (1 + k r²). Barrel
 * distortion has k < 0. The division model goes both ways in closed form (Fitzgibbon 2001, from memory).
 */
final readonly class Lens
{
    /**
     * @param float $k per square pixel
     */
    public function __construct(public float $k, public PixelPoint $centre)
    {
    }

    /** Where a picture without the lens would show what this one shows at p. */
    public function straight(PixelPoint $p): PixelPoint
    {
        [$dx, $dy] = [$p->x - $this->centre->x, $p->y - $this->centre->y];
        $w = 1.0 + $this->k * ($dx * $dx + $dy * $dy);

        return new PixelPoint($this->centre->x + $dx / $w, $this->centre->y + $dy / $w);
    }

    /** The other way: the smaller root of k ρ r² − r + ρ = 0, with ρ the distance in the straight picture. */
    public function bent(PixelPoint $p): PixelPoint
    {
        [$dx, $dy] = [$p->x - $this->centre->x, $p->y - $this->centre->y];
        // Beyond the largest distance that the lens can show the edge of its picture stands in.
        $f = 2.0 / (1.0 + sqrt(max(0.0, 1.0 - 4.0 * $this->k * ($dx * $dx + $dy * $dy))));

        return new PixelPoint($this->centre->x + $f * $dx, $this->centre->y + $f * $dy);
    }

    /**
     * Derivatives of straight().
     *
     * @return array{float, float, float, float} dx/dx, dx/dy, dy/dx, dy/dy, no unit
     */
    public function linearAt(PixelPoint $p): array
    {
        [$dx, $dy] = [$p->x - $this->centre->x, $p->y - $this->centre->y];
        $w = 1.0 + $this->k * ($dx * $dx + $dy * $dy);
        $f = -2.0 * $this->k / ($w * $w);

        return [1.0 / $w + $f * $dx * $dx, $f * $dx * $dy, $f * $dx * $dy, 1.0 / $w + $f * $dy * $dy];
    }
}
