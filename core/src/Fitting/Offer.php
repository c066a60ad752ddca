<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Fitting\Exception\FittingException;
use Plinth\Core\Geometry\PixelPoint;

/** A larger model that the statements speak for, with its evidence; offered, never applied by itself. */
final readonly class Offer
{
    /** χ² that so many more unknowns must save: odds of 1 : 1000 (tables of χ²). */
    public const SAVES = [1 => 10.83, 2 => 13.82, 3 => 16.27, 4 => 18.47];
    /** redundancy number below which nothing checks a length */
    private const CHECKED = 0.05;
    /** It must move something by more than this across the page, px. */
    private const MOVES_PX = 1.0;

    private function __construct(public Fit $fit, public float $deltaChiSquare, public float $effectPx, public string $sentence)
    {
    }

    /**
     * @param Fit $fit by the present model
     * @param Model $largest what the caller can make use of
     *
     * @return self|null the smallest larger model that the statements speak for
     */
    public static function beyond(
        Fit $fit,
        Observations $observations,
        PageFrame $frame,
        FitStart $start,
        Model $largest = Model::Sheared,
    ): ?self {
        // One wrong figure may explain as much as a larger model would, with less.
        $blamed = Blamed::in($fit, $observations, $frame);
        foreach ($fit->model->larger($largest) as $model) {
            $more = \count($model->shape()->parameters()) - \count($fit->model->shape()->parameters());
            // With nothing left over a larger model agrees with everything, and that says nothing.
            if ($fit->degreesOfFreedom - $more < 0 || !$fit->determined->scale) {
                break;
            }
            try {
                $larger = (new Fitter($model->shape()))->fit($observations, $frame, $start);
            } catch (FittingException) {
                continue; // the statements do not reach that far
            }
            $saved = $fit->chiSquare - $larger->chiSquare;
            $moved = self::moved($fit, $larger, $frame);
            $isOneFigure = null !== $blamed && $fit->chiSquare - $blamed->chiSquare >= $saved;
            if ($saved > self::SAVES[$more] && $moved > self::MOVES_PX && !$isOneFigure && !self::hangsOnOne($larger)) {
                return new self($larger, $saved, $moved, self::evidence($larger));
            }
        }

        return null;
    }

    /** A single figure or line that disagrees may just be wrong: nothing in the larger fit checks it, so it is no evidence for that fit. */
    private static function hangsOnOne(Fit $larger): bool
    {
        foreach ($larger->lengths as $length) {
            if ($length->redundancy < self::CHECKED) {
                return true;
            }
        }
        foreach (Model::Stretched === $larger->model ? [] : $larger->grid as $line) {
            if ($line->redundancy < self::CHECKED) {
                return true;
            }
        }

        return false;
    }

    /** How far the larger model moves a corner of the page, px. */
    private static function moved(Fit $fit, Fit $larger, PageFrame $frame): float
    {
        $most = 0.0;
        $c = $frame->centre;
        foreach ([[0.0, 0.0], [2.0 * $c->x, 0.0], [2.0 * $c->x, 2.0 * $c->y], [0.0, 2.0 * $c->y]] as [$x, $y]) {
            $p = new PixelPoint($x, $y);
            $most = max($most, $fit->pixelToMm->toMm($p)->distanceTo($larger->pixelToMm->toMm($p)) / $fit->mmPerPixel);
        }

        return $most;
    }

    private static function evidence(Fit $larger): string
    {
        $stretch = $larger->stretch();
        $percent = 100.0 * abs($stretch['x'] / $stretch['y'] - 1.0);
        if (Model::Stretched === $larger->model) {
            return \sprintf(
                'Figures along x and along y disagree by %.2f %%: the copy is stretched %s. '
                .'A factor of its own for each axis would bring all of them together.',
                $percent,
                $stretch['x'] < $stretch['y'] ? 'sideways' : 'upright',
            );
        }

        if (Model::Perspective === $larger->model) {
            return 'Lines that run alongside each other converge: it is a photograph taken at a slant. '
                .'A perspective fit would bring the statements together.';
        }

        return \sprintf(
            'The drawing’s axes are not square by %.2f°: the copy leans. A slanted fit would bring the statements together.',
            abs($larger->slantDegrees()),
        );
    }
}
