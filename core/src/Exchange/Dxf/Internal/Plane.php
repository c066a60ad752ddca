<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Dxf\Internal;

/**
 * An entity's own plane, seen from above: the arbitrary axis algorithm of the DXF reference. For a plane that faces up, as
 * nearly always, it is the drawing's own.
 */
final readonly class Plane
{
    /** @var array{float, float, float} */
    private array $x;
    /** @var array{float, float, float} */
    private array $y;
    /** @var array{float, float, float} */
    private array $z;
    public bool $isLevel;

    public function __construct(float $nx, float $ny, float $nz)
    {
        $length = sqrt($nx * $nx + $ny * $ny + $nz * $nz);
        [$nx, $ny, $nz] = $length > 0.0 && is_finite($length) ? [$nx / $length, $ny / $length, $nz / $length] : [0.0, 0.0, 1.0];
        $this->isLevel = 0.0 === $nx && 0.0 === $ny && $nz > 0.0;
        [$ax, $ay, $az] = abs($nx) < 1.0 / 64.0 && abs($ny) < 1.0 / 64.0 ? [$nz, 0.0, -$nx] : [-$ny, $nx, 0.0];
        $length = sqrt($ax * $ax + $ay * $ay + $az * $az);
        $this->x = [$ax / $length, $ay / $length, $az / $length];
        $this->y = [$ny * $this->x[2] - $nz * $this->x[1], $nz * $this->x[0] - $nx * $this->x[2], $nx * $this->x[1] - $ny * $this->x[0]];
        $this->z = [$nx, $ny, $nz];
    }

    /** @return array{float, float} */
    public function place(float $x, float $y, float $z = 0.0): array
    {
        return $this->isLevel ? [$x, $y] : [
            $x * $this->x[0] + $y * $this->y[0] + $z * $this->z[0],
            $x * $this->x[1] + $y * $this->y[1] + $z * $this->z[1],
        ];
    }
}
