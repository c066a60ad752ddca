<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Fitting\Exception\FitDidNotSettle;
use Plinth\Core\Fitting\Exception\FittingException;
use Plinth\Core\Fitting\Exception\NothingToFit;
use Plinth\Core\Fitting\Internal\Adjustment;
use Plinth\Core\Fitting\Internal\Condition;
use Plinth\Core\Fitting\Internal\Equations;
use Plinth\Core\Fitting\Internal\PlusMinus;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Numerics\ChiSquare;

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
        $pointsSayMore = \count($observations->points) >= 2;
        $determined = new Determined(
            scale: [] !== $observations->used()
                || $pointsSayMore && !$observations->pointsKeepSize
                || [] !== $observations->rectangles
                || null !== $observations->scale,
            turn: [] !== $observations->grid || $pointsSayMore,
            place: [] !== $observations->points,
        );
        if (!$determined->scale && null === $start->mmPerPixel) {
            throw NothingToFit::nothingSaysTheSize();
        }
        $mmPerPixel = $this->startScale($observations) ?? $start->mmPerPixel ?? throw NothingToFit::nothingSaysTheSize();
        $turn = $this->startTurn($observations, $start->turnRad);
        $equations = Equations::of($observations, $frame);
        $held = $observations->pointsKeepSize ? (new Determined(
            $determined->scale,
            [] !== $observations->grid,
            false,
        ))->held() : $determined->held();
        $settled = static fn (ShapeModel $model): Adjustment => $equations->settled(
            $model,
            $frame,
            $model->start($mmPerPixel * $frame->unitPx, $turn),
            $mmPerPixel,
            $start,
            $held,
        );
        $shape = $this->model instanceof Perspective ? new Perspective($frame->beforehand->focal) : $this->model;
        try {
            $adjustment = $settled($shape);
        } catch (FitDidNotSettle $e) {
            throw Model::Similar === $this->model->model() ? $e : NothingToFit::tooLittleFor($this->model->model());
        }
        if (self::folds($shape, $adjustment, $frame)) {
            throw NothingToFit::folds();
        }
        // How much a picture is foreshortened may be left to what is known of lenses, but not whether it leans.
        if ($shape instanceof Perspective && $adjustment->isUntested('shear')) {
            throw NothingToFit::tooLittleFor(Model::Perspective);
        }
        // A lens is taken back where the statements speak for it.
        if ($shape instanceof Perspective && $adjustment->chiSquare() > Offer::SAVES[1]) {
            $lens = new PerspectiveWithLens($frame->beforehand->focal);
            $bent = self::settledOr(null, static fn (): Adjustment => $settled($lens));
            if (null !== $bent && self::speaksForALens($adjustment, $bent)) {
                return $this->report($lens, $bent, $bent, $equations, $observations, $frame, $determined);
            }
        }
        // What no statement speaks of, ± owns.
        $model = new LeftOpen($shape, $frame->beforehand->besides($shape->model()));
        $open = $model->isOpen() ? self::settledOr($adjustment, static fn (): Adjustment => $settled($model)) : $adjustment;

        return $this->report($shape, $adjustment, $open, $equations, $observations, $frame, $determined);
    }

    /**
     * @template T of Adjustment|null
     *
     * @param T $otherwise
     * @param callable(): Adjustment $settle
     *
     * @return Adjustment|T
     */
    private static function settledOr(?Adjustment $otherwise, callable $settle): ?Adjustment
    {
        try {
            return $settle();
        } catch (FitDidNotSettle) {
            return $otherwise;
        }
    }

    /** A wrong figure would bend anything: only a lens that explains the statements wholly is one. */
    private static function speaksForALens(Adjustment $plain, Adjustment $bent): bool
    {
        $dof = $bent->degreesOfFreedom() - 1;

        return $dof > 0
            && $plain->chiSquare() - $bent->chiSquare() > Offer::SAVES[1]
            && ChiSquare::upperTail($bent->chiSquare(), $dof) >= PlusMinus::GLOBAL_TEST;
    }

    /**
     * What control points do to a drawing that keeps its size: it is turned and shifted so that they lie as near as they can
     * (Umeyama 1991 without the scale, from memory). One point shifts only.
     *
     * @return array{PixelToMm, float} and by how much it turned, radians
     */
    private static function placed(PixelToMm $map, Observations $observations): array
    {
        $n = \count($observations->points);
        $from = array_map(static fn (ControlPoint $p): Point => $map->toMm($observations->pick($p->pick)->at), $observations->points);
        $mean = static fn (Point ...$points): Point => new Point(
            array_sum(array_map(static fn (Point $p): float => $p->x, $points)) / $n,
            array_sum(array_map(static fn (Point $p): float => $p->y, $points)) / $n,
        );
        $about = $mean(...$from);
        $to = $mean(...array_map(static fn (ControlPoint $p): Point => $p->at, $observations->points));
        [$dot, $cross] = [0.0, 0.0];
        foreach ($observations->points as $k => $point) {
            [$ax, $ay, $bx, $by] = [$from[$k]->x - $about->x, $from[$k]->y - $about->y, $point->at->x - $to->x, $point->at->y - $to->y];
            $dot += $ax * $bx + $ay * $by;
            $cross += $ax * $by - $ay * $bx;
        }
        $turn = $n < 2 ? 0.0 : atan2($cross, $dot);

        return [$map->turned($turn, $about)->shifted($to->x - $about->x, $to->y - $about->y), $turn];
    }

    /** A homography whose horizon runs through the page is no picture of a flat thing. */
    private static function folds(ShapeModel $shape, Adjustment $adjustment, PageFrame $frame): bool
    {
        $map = $shape->pixelToMm($adjustment->shape(), $frame, 0.0, 0.0);
        $depths = array_map(
            static fn (array $c): float => $map->depthAt(new PixelPoint($c[0], $c[1])),
            [[0.0, 0.0], [$frame->widthPx, 0.0], [$frame->widthPx, $frame->heightPx], [0.0, $frame->heightPx]],
        );

        return min($depths) <= 0.05;
    }

    /** @param Adjustment $open with what nothing speaks of left open */
    private function report(
        ShapeModel $model,
        Adjustment $adjustment,
        Adjustment $open,
        Equations $equations,
        Observations $observations,
        PageFrame $frame,
        Determined $determined,
    ): Fit {
        $dof = $adjustment->degreesOfFreedom();
        $chiSquare = $adjustment->chiSquare();
        $s0 = $dof > 0 ? sqrt($chiSquare / $dof) : 1.0;
        $holds = 0 === $dof || ChiSquare::upperTail($chiSquare, $dof) >= PlusMinus::GLOBAL_TEST;
        $plusMinus = new PlusMinus($adjustment, $open);
        $suspect = $this->suspect($adjustment, $equations, $dof);
        $lengths = array_map(static function (KnownLength $length) use ($adjustment, $plusMinus, $suspect): LengthResult {
            $condition = Equations::distance($length, null);
            $residual = $adjustment->residual($condition);
            $reading = $plusMinus->ofReading($condition);
            $key = Equations::length($length);
            if (!$length->heldOut) {
                return new LengthResult(
                    $length->id,
                    $length->mm + $residual,
                    $residual,
                    $reading,
                    $adjustment->redundancy($key),
                    $adjustment->standardised($key),
                    $suspect === $key,
                );
            }
            // A check length is independent of the fit, so its own rounding adds to what its difference may be.
            $sigma = hypot($reading / 2.0, $length->sigmaMm);

            return new LengthResult(
                $length->id,
                $length->mm + $residual,
                $residual,
                2.0 * $sigma,
                1.0,
                $sigma > 0.0 ? $residual / $sigma : 0.0,
                abs($residual) > self::SUSPECT_W * $sigma,
            );
        }, $observations->lengths);
        [$centreX, $centreY] = $adjustment->centre();
        $pixelToMm = $model->pixelToMm($adjustment->shape(), $frame, $centreX, $centreY);
        $turned = 0.0;
        if ($observations->pointsKeepSize && [] !== $observations->points) {
            [$pixelToMm, $turned] = self::placed($pixelToMm, $observations);
        }
        $turnDegrees = rad2deg($pixelToMm->turnRadAt($frame->centre));
        $axes = ['x' => -$turnDegrees, 'y' => 90.0 - $turnDegrees];
        $grid = array_map(static fn (GridPick $line): GridResult => new GridResult(
            $line->id, rad2deg(
                $adjustment->residual($equations->condition('grid/'.$line->id)) + $turned,
            ), $adjustment->standardised('grid/'.$line->id), $adjustment->redundancy('grid/'.$line->id),
        ), $observations->grid);
        $points = array_map(static function (ControlPoint $point) use ($adjustment, $pixelToMm, $observations, $suspect): PointResult {
            $key = 'point/'.$point->id;

            return new PointResult(
                $point->id,
                $pixelToMm->toMm($observations->pick($point->pick)->at)->distanceTo($point->at),
                $observations->pointsKeepSize ? 0.0 : max(
                    abs($adjustment->standardised($key.'/x')),
                    abs($adjustment->standardised($key.'/y')),
                ),
                str_starts_with((string) $suspect, $key.'/'),
            );
        }, $observations->points);
        $scale = null === $observations->scale ? null : new ScaleResult(
            exp($adjustment->residual($equations->condition('scale'))), $adjustment->standardised('scale'), 'scale' === $suspect,
        );

        return new Fit(
            $model->model(),
            $pixelToMm,
            $pixelToMm->mmPerPixelAt($frame->centre),
            $turnDegrees,
            $determined,
            $dof,
            $chiSquare,
            $s0,
            $holds,
            $this->rms($observations, $lengths),
            $determined->scale ? $plusMinus->over10m(0.0, 45.0, 90.0, 135.0) : null,
            $determined->scale ? ['x' => $plusMinus->over10m($axes['x']), 'y' => $plusMinus->over10m($axes['y'])] : null,
            $determined->scale ? $plusMinus->untested($axes) : null,
            $lengths,
            $grid,
            $points,
            array_map(
                static fn (Rectangle $r): RectangleResult => self::rectangle($r, $adjustment, $equations, $plusMinus, $suspect),
                $observations->rectangles,
            ),
            $scale,
            Spread::of($plusMinus, $observations, $frame),
            $frame->centre,
        );
    }

    private static function rectangle(
        Rectangle $rectangle,
        Adjustment $adjustment,
        Equations $equations,
        PlusMinus $plusMinus,
        ?string $suspect,
    ): RectangleResult {
        $key = 'rectangle/'.$rectangle->id;
        $sides = array_map(static fn (string $side): Condition => $equations->condition($key.$side), ['/ab', '/dc', '/bc', '/ad']);
        $off = array_map($adjustment->residual(...), $sides);

        return new RectangleResult(
            $rectangle->id,
            $rectangle->widthMm + ($off[0] + $off[1]) / 2.0,
            $rectangle->depthMm + ($off[2] + $off[3]) / 2.0,
            rad2deg($adjustment->residual($equations->condition($key.'/square'))),
            max(array_map($plusMinus->ofReading(...), $sides)),
            max(abs($adjustment->standardised($key.'/ab', $key.'/dc')), abs($adjustment->standardised($key.'/bc', $key.'/ad'))),
            str_starts_with((string) $suspect, $key.'/'),
        );
    }

    /** The one figure that data snooping points at; null when none does or, with one redundancy, none can be blamed. */
    private function suspect(Adjustment $adjustment, Equations $equations, int $dof): ?string
    {
        if ($dof < 2) {
            return null;
        }
        $worst = null;
        $largest = self::SUSPECT_W;
        foreach ($equations->blamable() as $figure => $keys) {
            $w = abs($adjustment->standardised(...$keys));
            if ($w > $largest) {
                $largest = $w;
                $worst = $figure;
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
     * s = Σ d L / Σ d², the least-squares scale through the origin; from two control points their distance serves, and last the stated
     * scale.
     */
    private function startScale(Observations $observations): ?float
    {
        $dl = 0.0;
        $dd = 0.0;
        $add = static function (PixelPoint $a, PixelPoint $b, float $mm) use (&$dl, &$dd): void {
            $d = $a->distanceTo($b);
            $dl += $d * $mm;
            $dd += $d * $d;
        };
        foreach ($observations->used() as $length) {
            [$a, $b] = [$observations->pick($length->a)->at, $observations->pick($length->b)->at];
            // Across, the foot of the perpendicular from b stands for a.
            $add(
                null === $length->c || Along::Across !== $length->along ? $a : $b->footOn($a, $observations->pick($length->c)->at),
                $b,
                $length->betweenPicksMm(),
            );
        }
        foreach ($observations->rectangles as $rectangle) {
            $at = array_map(static fn (string $id): PixelPoint => $observations->pick($id)->at, $rectangle->corners);
            foreach ($at as $k => $corner) {
                $add($corner, $at[($k + 1) % 4], 0 === $k % 2 ? $rectangle->widthMm : $rectangle->depthMm);
            }
        }
        for ($i = 1; $i < \count($observations->points); ++$i) {
            $p = $observations->points[$i - 1];
            $q = $observations->points[$i];
            $add($observations->pick($p->pick)->at, $observations->pick($q->pick)->at, $p->at->distanceTo($q->at));
        }

        return $dd > 0.0 ? $dl / $dd : $observations->scale?->mmPerPixel;
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
