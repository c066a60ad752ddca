<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Fitting\Exception\FitDidNotSettle;
use Plinth\Core\Fitting\Exception\FittingException;
use Plinth\Core\Fitting\Exception\NothingToFit;
use Plinth\Core\Fitting\Internal\Adjustment;
use Plinth\Core\Fitting\Internal\ChiSquare;
use Plinth\Core\Geometry\PixelPoint;

/**
 * Finds the best fit of a drawing from all that is stated about it, and says how good it is.
 *
 * Example: one length of 800 px known to be 4000 mm gives 5 mm per pixel; a line picked 1° off level turns the picture
 * back by that degree.
 */
final readonly class Fitter
{
    /** |w| beyond this has odds of 1 : 1000 (two-sided normal), Baarda's data snooping. */
    private const SUSPECT_W = 3.29;
    /** A global test that fails at 1 % widens every ±. */
    private const GLOBAL_TEST = 0.01;

    public function __construct(private ShapeModel $model = new Similar())
    {
    }

    /**
     * @param FitStart $start where the drawing lies now; what nothing determines stays there
     *
     * @throws FittingException when nothing says the size and the start does not either, or no best fit is found
     */
    public function fit(Observations $observations, PageFrame $frame, FitStart $start): Fit
    {
        $used = array_values(array_filter($observations->lengths, static fn (KnownLength $l): bool => !$l->heldOut));
        $pointsSayMore = \count($observations->points) >= 2;
        $determined = new Determined(
            scale: [] !== $used || $pointsSayMore,
            turn: [] !== $observations->grid || $pointsSayMore,
            place: [] !== $observations->points,
        );
        if (!$determined->scale && null === $start->mmPerPixel) {
            throw NothingToFit::nothingSaysTheSize();
        }
        $mmPerPixel = $this->startScale($observations, $used) ?? $start->mmPerPixel ?? throw NothingToFit::nothingSaysTheSize();
        $turn = $this->startTurn($observations, $start->turnRad);
        $adjustment = new Adjustment(
            $this->model,
            $frame,
            $observations,
            $this->model->start($mmPerPixel * $frame->unitPx, $turn),
            $start->centreMm->x ?? $frame->centre->x * $mmPerPixel,
            $start->centreMm->y ?? $frame->centre->y * $mmPerPixel,
            $determined->held(),
        );
        try {
            $adjustment->settle();
        } catch (FitDidNotSettle $e) {
            throw Model::Similar === $this->model->model() ? $e : NothingToFit::tooLittleFor($this->model->model());
        }

        return $this->report($adjustment, $observations, $frame, $determined);
    }

    private function report(Adjustment $adjustment, Observations $observations, PageFrame $frame, Determined $determined): Fit
    {
        $dof = $adjustment->degreesOfFreedom();
        $chiSquare = $adjustment->chiSquare();
        $s0 = $dof > 0 ? sqrt($chiSquare / $dof) : 1.0;
        $holds = 0 === $dof || ChiSquare::upperTail($chiSquare, $dof) >= self::GLOBAL_TEST;
        $widen = $holds ? 1.0 : max(1.0, $s0);
        $suspect = $this->suspect($adjustment, $observations, $dof);
        $lengths = [];
        $condition = 0;
        foreach ($observations->lengths as $i => $length) {
            $reads = $adjustment->reads($length);
            $reading = $adjustment->readingSigma($length);
            $used = !$length->heldOut;
            // A check length is independent of the fit, so its own rounding adds to what its difference may be.
            $sigma = $used ? $reading * $widen : hypot($reading * $widen, $length->sigmaMm);
            $lengths[] = new LengthResult(
                $length->id,
                $reads,
                $reads - $length->mm,
                2.0 * $sigma,
                $used ? $adjustment->redundancy($condition) : 1.0,
                $used ? $adjustment->standardised($condition) : ($sigma > 0.0 ? ($reads - $length->mm) / $sigma : 0.0),
                $used ? $suspect === $condition : abs($reads - $length->mm) > self::SUSPECT_W * $sigma,
            );
            $condition += $used ? 1 : 0;
        }
        $grid = [];
        foreach ($observations->grid as $line) {
            $grid[] = new GridResult($line->id, rad2deg($adjustment->gridResidual($line->a, $line->b, $line->directionRad)), $adjustment->standardised($condition++));
        }
        [$centreX, $centreY] = $adjustment->centre();
        $pixelToMm = $this->model->pixelToMm($adjustment->shape(), $frame, $centreX, $centreY);
        $points = [];
        foreach ($observations->points as $point) {
            $at = $pixelToMm->toMm($observations->pick($point->pick)->at);
            $points[] = new PointResult($point->id, $at->distanceTo($point->at), max(abs($adjustment->standardised($condition)), abs($adjustment->standardised($condition + 1))));
            $condition += 2;
        }

        return new Fit(
            $this->model->model(),
            $pixelToMm,
            $pixelToMm->mmPerPixelAt($frame->centre),
            rad2deg($pixelToMm->turnRadAt($frame->centre)),
            $determined,
            $dof,
            $chiSquare,
            $s0,
            $holds,
            $this->rms($observations, $lengths),
            $determined->scale ? 2.0 * 10_000.0 * $adjustment->relativeSigma() * $widen : null,
            $lengths,
            $grid,
            $points,
        );
    }

    /** The one condition that data snooping points at; null when none does or, with one redundancy, none can be blamed. */
    private function suspect(Adjustment $adjustment, Observations $observations, int $dof): ?int
    {
        if ($dof < 2) {
            return null;
        }
        $used = \count(array_filter($observations->lengths, static fn (KnownLength $l): bool => !$l->heldOut));
        $worst = null;
        $largest = self::SUSPECT_W;
        for ($i = 0; $i < $used; ++$i) {
            $w = abs($adjustment->standardised($i));
            if ($w > $largest) {
                $largest = $w;
                $worst = $i;
            }
        }

        return $worst;
    }

    /** @param list<LengthResult> $results */
    private function rms(Observations $observations, array $results): float
    {
        $squares = [];
        foreach ($results as $i => $result) {
            if (!$observations->lengths[$i]->heldOut) {
                $squares[] = $result->residualMm ** 2;
            }
        }

        return [] === $squares ? 0.0 : sqrt(array_sum($squares) / \count($squares));
    }

    /**
     * s = Σ d L / Σ d², the least-squares scale through the origin; from two control points their distance serves.
     *
     * @param list<KnownLength> $used
     */
    private function startScale(Observations $observations, array $used): ?float
    {
        $dl = 0.0;
        $dd = 0.0;
        $add = static function (PixelPoint $a, PixelPoint $b, float $mm) use (&$dl, &$dd): void {
            $d = $a->distanceTo($b);
            $dl += $d * $mm;
            $dd += $d * $d;
        };
        foreach ($used as $length) {
            $add($observations->pick($length->a)->at, $observations->pick($length->b)->at, $length->mm);
        }
        for ($i = 1; $i < \count($observations->points); ++$i) {
            $p = $observations->points[$i - 1];
            $q = $observations->points[$i];
            $add($observations->pick($p->pick)->at, $observations->pick($q->pick)->at, $p->at->distanceTo($q->at));
        }

        return $dd > 0.0 ? $dl / $dd : null;
    }

    /** Lines have no front and back: their mean is taken at the doubled angle, and the turn nearest the present one wins. */
    private function startTurn(Observations $observations, float $present): float
    {
        $cos = 0.0;
        $sin = 0.0;
        foreach ($observations->grid as $line) {
            $a = $observations->pick($line->a)->at;
            $b = $observations->pick($line->b)->at;
            $turn = $line->directionRad - atan2($a->y - $b->y, $b->x - $a->x);
            $cos += $a->distanceTo($b) * cos(2.0 * $turn);
            $sin += $a->distanceTo($b) * sin(2.0 * $turn);
        }
        if ([] === $observations->grid && \count($observations->points) >= 2) {
            $p = $observations->points[0];
            $q = $observations->points[\count($observations->points) - 1];
            $a = $observations->pick($p->pick)->at;
            $b = $observations->pick($q->pick)->at;

            return atan2($q->at->y - $p->at->y, $q->at->x - $p->at->x) - atan2($a->y - $b->y, $b->x - $a->x);
        }
        if (0.0 === $cos && 0.0 === $sin) {
            return $present;
        }
        $turn = atan2($sin, $cos) / 2.0;

        return $turn + \M_PI * round(($present - $turn) / \M_PI);
    }
}
