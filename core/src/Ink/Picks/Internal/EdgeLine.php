<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Picks\Internal;

/**
 * A straight edge, or the middle of a stroke between two, fitted to edge points by total least squares. Coordinates count
 * from the pick.
 *
 * @internal
 */
final readonly class EdgeLine
{
    /**
     * @param float $nx unit normal toward the lighter side
     * @param float $off distance from the origin along the normal, px
     * @param non-empty-list<array{float, float}> $points
     * @param float $sigma standard deviation of the line at its middle, px
     * @param float|null $width of the stroke whose middle it is, px; null for the edge of a surface
     */
    private function __construct(
        public float $nx,
        public float $ny,
        public float $off,
        public array $points,
        public float $sigma,
        public ?float $width = null,
        private ?self $one = null,
        private ?self $other = null,
    ) {
    }

    /**
     * @param non-empty-list<array{float, float}> $points at least two
     * @param float $nx rough normal toward the lighter side
     */
    public static function through(array $points, float $nx, float $ny): self
    {
        $n = \count($points);
        $mx = array_sum(array_column($points, 0)) / $n;
        $my = array_sum(array_column($points, 1)) / $n;
        [$xx, $xy, $yy] = [0.0, 0.0, 0.0];
        foreach ($points as [$x, $y]) {
            $xx += ($x - $mx) ** 2;
            $xy += ($x - $mx) * ($y - $my);
            $yy += ($y - $my) ** 2;
        }
        // The normal is the eigenvector of the smaller eigenvalue.
        $angle = 0.5 * atan2(2.0 * $xy, $xx - $yy) + \M_PI_2;
        [$ux, $uy] = [cos($angle), sin($angle)];
        if ($ux * $nx + $uy * $ny < 0.0) {
            [$ux, $uy] = [-$ux, -$uy];
        }
        $rest = max(0.0, ($xx + $yy) / 2.0 - hypot(($xx - $yy) / 2.0, $xy)) / max(1, $n - 2);

        // Neighbouring edge points share the smoothing of the gradient: half of them count as independent.
        return new self($ux, $uy, $ux * $mx + $uy * $my, $points, sqrt($rest / max(1.0, $n / 2.0)));
    }

    public static function middle(self $one, self $other): self
    {
        // Their normals oppose each other.
        [$nx, $ny] = [$one->nx - $other->nx, $one->ny - $other->ny];
        $length = hypot($nx, $ny);

        return new self(
            $nx / $length,
            $ny / $length,
            ($one->off - $other->off) / 2.0,
            [...$one->points, ...$other->points],
            hypot($one->sigma, $other->sigma) / 2.0,
            abs($one->off + $other->off),
            $one,
            $other,
        );
    }

    /** Fitted anew without the points near a place along it, where it is rounded by the next line; itself when too few remain. */
    public function without(float $x, float $y, float $near, int $least): self
    {
        if (null !== $this->one && null !== $this->other) {
            return self::middle($this->one->without($x, $y, $near, $least), $this->other->without($x, $y, $near, $least));
        }
        $kept = array_values(array_filter($this->points, static fn (array $p): bool => hypot($p[0] - $x, $p[1] - $y) > $near));

        return [] === $kept || \count($kept) < $least ? $this : self::through($kept, $this->nx, $this->ny);
    }

    public function distance(float $x, float $y): float
    {
        return $this->nx * $x + $this->ny * $y - $this->off;
    }

    /** Position along the line, px. */
    public function along(float $x, float $y): float
    {
        return -$this->ny * $x + $this->nx * $y;
    }

    /**
     * How much of it stands near a place along it: points within so many pixels to either side.
     *
     * @return array{int, int} before and after
     */
    public function support(float $x, float $y, float $within): array
    {
        $t0 = $this->along($x, $y);
        [$before, $after] = [0, 0];
        foreach ($this->points as [$px, $py]) {
            $t = $this->along($px, $py) - $t0;
            if (abs($t) <= $within) {
                $t < 0.0 ? ++$before : ++$after;
            }
        }

        return [$before, $after];
    }

    /** @return array{float, float}|null */
    public function crossing(self $other): ?array
    {
        $det = $this->nx * $other->ny - $this->ny * $other->nx;

        return abs($det) < 0.3 ? null : [
            ($this->off * $other->ny - $other->off * $this->ny) / $det,
            ($this->nx * $other->off - $other->nx * $this->off) / $det,
        ];
    }

    /** Degrees between the normals, 0 to 180. */
    public function angleTo(self $other): float
    {
        return rad2deg(acos(max(-1.0, min(1.0, $this->nx * $other->nx + $this->ny * $other->ny))));
    }

    /** Along the edge, counter-clockwise as seen, though pixels run down; degrees in [0, 180). */
    public function alongDegrees(): float
    {
        return fmod(450.0 - rad2deg(atan2($this->ny, $this->nx)), 180.0);
    }
}
