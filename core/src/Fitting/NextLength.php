<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Fitting\Exception\FittingException;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\Point;

/** The length worth giving next: across, down or along a diagonal of the drawing, whichever shrinks the ± most. */
final readonly class NextLength
{
    /** What an unmade length is reckoned with: a pick within a pixel, a figure as good as the best one given so far. */
    private const PICK_SIGMA_PX = 0.5;
    private const FIGURE_SIGMA_MM = 5.0;
    /** Until picks show how far the drawing reaches, the middle three fifths of the page stand for it. */
    private const REACH = 0.3;
    /** Below this gain another length is not worth the designer's time. */
    private const WORTH = 0.8;

    /** A length steeper or flatter than this runs one way only. */
    private const ONE_WAY = 0.4;

    private function __construct(public string $direction, public PixelPoint $from, public PixelPoint $to, public float $plusMinusMmPer10m)
    {
    }

    /** @return self|null null when no candidate brings ± below four fifths of what it is */
    public static function after(Fit $fit, Observations $observations, PageFrame $frame): ?self
    {
        if (null === $fit->plusMinusMmPer10m) {
            return null;
        }
        $candidates = self::candidates($fit, $observations, $frame);
        $sigmas = array_map(static fn (KnownLength $l): float => $l->sigmaMm, $observations->lengths);
        $sigmaMm = [] === $sigmas ? self::FIGURE_SIGMA_MM : min($sigmas);
        $best = null;
        foreach ($candidates as $direction => [$from, $to]) {
            $mm = $fit->pixelToMm->toMm($from)->distanceTo($fit->pixelToMm->toMm($to));
            try {
                $then = (new Fitter($fit->model->shape()))->fit(
                    $observations->withLength(
                        new KnownLength('candidate', 'candidate-a', 'candidate-b', $mm, $sigmaMm),
                        new Pick('candidate-a', $from, self::PICK_SIGMA_PX),
                        new Pick('candidate-b', $to, self::PICK_SIGMA_PX),
                    ),
                    $frame,
                    FitStart::from($fit->pixelToMm, $frame),
                )->plusMinusMmPer10m;
            } catch (FittingException) {
                continue;
            }
            if (null !== $then && $then < self::WORTH * $fit->plusMinusMmPer10m && (null === $best || $then < $best->plusMinusMmPer10m)) {
                $best = new self($direction, $from, $to, $then);
            }
        }

        return $best;
    }

    /** Where every length runs the same way, one the other way: it would show a stretched copy. */
    public static function inTheOtherDirection(Fit $fit, Observations $observations, PageFrame $frame): ?self
    {
        if (
            Model::Similar !== $fit->model
            || null === $fit->plusMinusMmPer10m
            || !$fit->determined->turn
            || [] !== $observations->rectangles
            || \count($observations->points) > 2
        ) {
            return null;
        }
        $ways = [];
        foreach ($observations->lengths as $length) {
            $a = $fit->pixelToMm->toMm($observations->pick($length->a)->at);
            $b = $fit->pixelToMm->toMm($observations->pick($length->b)->at);
            $steep = abs($b->y - $a->y) / max(1e-9, abs($b->x - $a->x));
            $ways[Along::X === $length->along || (Along::Y !== $length->along && $steep < self::ONE_WAY) ? 'across' : (
                Along::Y === $length->along
                || $steep > 1.0 / self::ONE_WAY ? 'down' : 'both'
            )] = true;
        }
        if (1 !== \count($ways) || isset($ways['both'])) {
            return null;
        }
        $direction = isset($ways['across']) ? 'down' : 'across';
        [$from, $to] = self::candidates($fit, $observations, $frame)[$direction];

        return $from->distanceTo($to) < 0.1 * $frame->unitPx ? null : new self($direction, $from, $to, $fit->plusMinusMmPer10m);
    }

    /**
     * Across and down the drawing, along its own directions, through the middle of what has been picked so far.
     *
     * @return array<string, array{PixelPoint, PixelPoint}>
     */
    private static function candidates(Fit $fit, Observations $observations, PageFrame $frame): array
    {
        $corners = array_map(static fn (Pick $p): PixelPoint => $p->at, array_values($observations->picks));
        if (\count($corners) < 4 || self::isThin($corners, $frame)) {
            $w = self::REACH * $frame->widthPx;
            $h = self::REACH * $frame->heightPx;
            $c = $frame->centre;
            $corners = [new PixelPoint($c->x - $w, $c->y - $h), new PixelPoint($c->x + $w, $c->y + $h)];
        }
        $model = array_map($fit->pixelToMm->toMm(...), $corners);
        $xs = array_map(static fn (Point $p): float => $p->x, $model);
        $ys = array_map(static fn (Point $p): float => $p->y, $model);
        [$x1, $x2, $y1, $y2] = [min($xs), max($xs), min($ys), max($ys)];
        $at = static fn (float $x, float $y): PixelPoint => $fit->pixelToMm->toPixel(new Point($x, $y));

        return [
            'across' => [$at($x1, ($y1 + $y2) / 2.0), $at($x2, ($y1 + $y2) / 2.0)],
            'down' => [$at(($x1 + $x2) / 2.0, $y2), $at(($x1 + $x2) / 2.0, $y1)],
        ];
    }

    /**
     * Picks along one side say nothing of how far the drawing reaches the other way.
     *
     * @param non-empty-list<PixelPoint> $at
     */
    private static function isThin(array $at, PageFrame $frame): bool
    {
        $x = array_map(static fn (PixelPoint $p): float => $p->x, $at);
        $y = array_map(static fn (PixelPoint $p): float => $p->y, $at);

        return min(max($x) - min($x), max($y) - min($y)) < 0.2 * $frame->unitPx;
    }
}
