<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Geometry\Newell;

/**
 * A plane that is nowhere upright: how high it lies at each place.
 *
 * @internal
 */
final readonly class HeightPlane
{
    private function __construct(public float $z, public float $dx, public float $dy, private float $x, private float $y)
    {
    }

    public static function level(float $z): self
    {
        return new self($z, 0.0, 0.0, 0.0, 0.0);
    }

    /** @param float $dx how much it rises by each mm along x, and along y by $dy */
    public static function through(float $x, float $y, float $z, float $dx, float $dy): self
    {
        return new self($z, $dx, $dy, $x, $y);
    }

    /**
     * Through the corners of a face that lies in a plane.
     *
     * @param non-empty-list<array{float, float, float}> $corners
     */
    public static function of(array $corners): self
    {
        [$nx, $ny, $nz] = Newell::normal($corners);
        [$ox, $oy, $oz] = $corners[0];

        return self::through($ox, $oy, $oz, -$nx / $nz, -$ny / $nz);
    }

    public function at(float $x, float $y): float
    {
        return $this->z + $this->dx * ($x - $this->x) + $this->dy * ($y - $this->y);
    }

    public function raised(float $mm): self
    {
        return new self($this->z + $mm, $this->dx, $this->dy, $this->x, $this->y);
    }

    public function isLevel(): bool
    {
        return 0.0 === $this->dx && 0.0 === $this->dy;
    }
}
