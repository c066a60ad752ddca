<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Internal;

use Plinth\Core\Numerics\ChiSquare;

/**
 * How far what a fit says may be off: by the errors of what was stated, and by what nothing speaks of. For that the same statements are
 * adjusted once more with all that is only known beforehand left open; where that comes out otherwise than the fit, the difference counts
 * whole.
 *
 * @internal
 */
final readonly class PlusMinus
{
    /** A global test that fails at 1 % widens every ±. */
    public const GLOBAL_TEST = 0.01;
    /** Half the lengths whose ± is told, and where on the page they lie: normalised coordinates, all of it on any page. */
    private const HALF = 0.3;
    private const PLACES = [[0.0, 0.0], [0.25, 0.0], [-0.25, 0.0], [0.0, 0.25], [0.0, -0.25]];
    private const TEN_METRES = 10_000.0;
    /** times ± along one axis that it is along the other */
    private const MOSTLY = 2.0;

    private float $widened;

    /** @param Adjustment $open the fit's own where nothing is left open */
    public function __construct(private Adjustment $fit, private Adjustment $open)
    {
        $dof = $open->degreesOfFreedom();
        $chiSquare = $open->chiSquare() + $open->chiSquareBeforehand();
        $holds = 0 === $dof || ChiSquare::upperTail($chiSquare, $dof) >= self::GLOBAL_TEST;
        $this->widened = $holds ? 1.0 : max(1.0, sqrt($chiSquare / $dof));
    }

    /** ± of what a condition reads at its picks, in its own unit; its figure left out. */
    public function ofReading(Condition $condition): float
    {
        return 2.0 * $this->widened * $this->open->readingSigma($condition)
            + abs($this->open->residual($condition) - $this->fit->residual($condition));
    }

    /**
     * ± of where a point of the page comes to lie against another one of it: along the longer half axis of its error ellipse.
     *
     * @return float mm
     */
    public function between(float $xPx, float $yPx, float $fromXPx, float $fromYPx): float
    {
        [$x, $y] = $this->fit->from($xPx, $yPx, $fromXPx, $fromYPx);
        [$openX, $openY] = $this->open->from($xPx, $yPx, $fromXPx, $fromYPx);

        return 2.0 * $this->widened * $this->open->sigmaBetween($xPx, $yPx, $fromXPx, $fromYPx) + hypot($openX - $x, $openY - $y);
    }

    /**
     * ± of a true 10 m in the worst of some directions, wherever it lies in the middle of the page.
     *
     * @param float ...$degrees on the page, counter-clockwise
     *
     * @return float mm
     */
    public function over10m(float ...$degrees): float
    {
        return max(0.0, ...array_map(
            fn (float $d): float => max(array_map(fn (array $place): float => $this->at($place, $d), self::PLACES)),
            array_values($degrees),
        ));
    }

    /**
     * The axis along which nothing has tested how long things are: of the stretch no more is known than beforehand.
     *
     * @param array{x: float, y: float} $axes degrees on the page, counter-clockwise
     *
     * @return 'x'|'y'|null
     */
    public function untested(array $axes): ?string
    {
        [$x, $y] = [$this->at(self::PLACES[0], $axes['x']), $this->at(self::PLACES[0], $axes['y'])];
        $isOpen = $this->open->isUntested('stretch') && max($x, $y) > self::MOSTLY * min($x, $y);

        return $isOpen ? ($x > $y ? 'x' : 'y') : null;
    }

    /**
     * ± of a true 10 m about a place of the page.
     *
     * @param array{float, float} $place
     */
    private function at(array $place, float $degrees): float
    {
        [$u, $v] = $place;
        [$du, $dv] = [self::HALF * cos(deg2rad($degrees)), self::HALF * sin(deg2rad($degrees))];
        $span = [[$u - $du, $v - $dv], [$u + $du, $v + $dv]];
        [, $mm] = $this->fit->relativeSigma(...$span);
        [$sigma, $openMm] = $this->open->relativeSigma(...$span);

        return self::TEN_METRES * (2.0 * $sigma * $this->widened + abs($openMm / $mm - 1.0));
    }
}
