<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Fitting\Exception\FittingException;

/** The known length that disagrees with the rest, and what the rest would agree with. */
final readonly class Blamed
{
    /**
     * @param float $readsMm what it reads when the fit does without it
     * @param float $plusMinusMm of that reading
     * @param float|null $plusMinusMmPer10m ± of the fit without it
     * @param float $chiSquare of the fit without it
     */
    private function __construct(
        public KnownLength $length,
        public float $readsMm,
        public float $plusMinusMm,
        public ?float $plusMinusMmPer10m,
        public float $chiSquare,
    ) {
    }

    public static function in(Fit $fit, Observations $observations, PageFrame $frame): ?self
    {
        foreach ($fit->lengths as $i => $result) {
            $length = $observations->lengths[$i];
            if ($result->suspect && !$length->heldOut) {
                return self::without($length, $fit, $observations, $frame);
            }
        }

        return null;
    }

    /** What would hold without a length: it is held out, so the rest tells what it reads. */
    public static function without(KnownLength $length, Fit $fit, Observations $observations, PageFrame $frame): ?self
    {
        $out = new KnownLength(
            $length->id,
            $length->a,
            $length->b,
            $length->mm,
            0.0,
            $length->along,
            true,
            $length->c,
            $length->allowanceMm,
        );
        $others = array_map(static fn (KnownLength $l): KnownLength => $l->id === $length->id ? $out : $l, $observations->lengths);
        try {
            $rest = (new Fitter($fit->model->shape()))->fit(
                $observations->withLengths($others),
                $frame,
                FitStart::from($fit->pixelToMm, $frame),
            );
        } catch (FittingException) {
            return null;
        }
        foreach ($rest->lengths as $result) {
            if ($result->id === $length->id && $rest->determined->scale) {
                return new self($length, $result->fittedMm, $result->plusMinusMm, $rest->plusMinusMmPer10m, $rest->chiSquare);
            }
        }

        return null;
    }
}
