<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;

/** The mapping found for a drawing, with its quality. */
final readonly class Fit
{
    /**
     * @param float $rotationDegrees turn given to the picture, counter-clockwise; the drawing's own skew is its negative
     * @param float $s0 √(χ² / degrees of freedom), 1 without redundancy
     * @param bool $holds the global test at 1 %: the statements agree within what they claim
     * @param float $rmsMm of the residuals of the lengths used
     * @param float|null $plusMinusMmPer10m ± of a true 10 m in its worst direction, from the fit and what is left open; null while nothing
     *                                      says the size
     * @param array{x: float, y: float}|null $plusMinusAlong likewise along the drawing's own axes
     * @param 'x'|'y'|null $untested the axis along which nothing has tested how long things are: ± there is what is known beforehand
     * @param list<LengthResult> $lengths in the order of the observations
     * @param list<GridResult> $grid
     * @param list<PointResult> $points
     * @param list<RectangleResult> $rectangles
     * @param PixelPoint $centre of the page, where a perspective fit's factors are told
     */
    public function __construct(
        public Model $model,
        public PixelToMm $pixelToMm,
        public float $mmPerPixel,
        public float $rotationDegrees,
        public Determined $determined,
        public int $degreesOfFreedom,
        public float $chiSquare,
        public float $s0,
        public bool $holds,
        public float $rmsMm,
        public ?float $plusMinusMmPer10m,
        public ?array $plusMinusAlong,
        public ?string $untested,
        public array $lengths,
        public array $grid,
        public array $points,
        public array $rectangles,
        public ?ScaleResult $scale,
        public Spread $spread,
        private PixelPoint $centre,
    ) {
    }

    /**
     * Factors along the drawing's own axes over their geometric mean; 1 and 1 for a similar fit.
     *
     * @return array{x: float, y: float}
     */
    public function stretch(): array
    {
        [$a, $b, $d, $e] = $this->pixelToMm->linearAt($this->centre);
        // mm = D · R · px: the rows of D · R are as long as the factors, up to the slant of the first.
        $y = hypot($d, $e);
        $x = abs($a * $e - $b * $d) / $y;
        $mean = sqrt($x * $y);

        return ['x' => $x / $mean, 'y' => $y / $mean];
    }

    /** By how much the drawing's own axes miss a right angle on the page, degrees; 0 unless sheared. */
    public function slantDegrees(): float
    {
        [$a, $b, $d, $e] = $this->pixelToMm->linearAt($this->centre);

        // The model's axes on the page are the columns of the inverse, which stand to each other as the rows of the map do.
        return rad2deg(asin(max(-1.0, min(1.0, ($a * $d + $b * $e) / (hypot($a, $b) * hypot($d, $e))))));
    }
}
