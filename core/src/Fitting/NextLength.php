<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Fitting\Exception\FittingException;
use Plinth\Core\Geometry\PixelPoint;

/** The length worth giving next: across, down or along a diagonal of the drawing, whichever shrinks the ± most. */
final readonly class NextLength
{
    /** What an unmade length is reckoned with: a pick within a pixel, a figure rounded to 5 mm and drawn to 0.1 mm at 1:50. */
    private const PICK_SIGMA_PX = 0.5;
    private const FIGURE_SIGMA_MM = 5.2;
    /** Candidates run across the middle four fifths: dimension lines reach about as far as the building does. */
    private const REACH = 0.4;
    /** Below this gain another length is not worth the designer's time. */
    private const WORTH = 0.8;

    private function __construct(public string $direction, public PixelPoint $from, public PixelPoint $to, public float $plusMinusMmPer10m)
    {
    }

    /** @return self|null null when no candidate brings ± below four fifths of what it is */
    public static function after(Fit $fit, Observations $observations, PageFrame $frame, ShapeModel $model = new Similar()): ?self
    {
        if (null === $fit->plusMinusMmPer10m) {
            return null;
        }
        $w = self::REACH * $frame->widthPx;
        $h = self::REACH * $frame->heightPx;
        $c = $frame->centre;
        $candidates = [
            'across' => [new PixelPoint($c->x - $w, $c->y), new PixelPoint($c->x + $w, $c->y)],
            'down' => [new PixelPoint($c->x, $c->y - $h), new PixelPoint($c->x, $c->y + $h)],
        ];
        $best = null;
        foreach ($candidates as $direction => [$from, $to]) {
            $mm = $fit->pixelToMm->toMm($from)->distanceTo($fit->pixelToMm->toMm($to));
            try {
                $then = (new Fitter($model))->fit(
                    $observations->withLength(
                        new KnownLength('candidate', 'candidate-a', 'candidate-b', $mm, self::FIGURE_SIGMA_MM),
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
}
