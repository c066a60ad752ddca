<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Fitting\Exception\FittingException;

/**
 * What statements agree on when nobody has looked at them yet: the simplest model that no offer contradicts, and the lengths that disagree
 * with the rest held out of it, one by one, the worst first.
 */
final readonly class Agreed
{
    /** Where more than this part of the lengths would have to go, or more than so many, it is not they that are wrong. */
    private const MOST_OUT = 0.2;
    private const MOST = 6;

    /** @param list<string> $heldOut ids of the lengths that disagree, as they were found */
    private function __construct(public Fit $fit, public array $heldOut)
    {
    }

    /**
     * @param Model $model the simplest that comes into question
     * @param list<string> $doubtful ids of the lengths that may be held out: what somebody has stated is not
     *
     * @throws FittingException where the statements determine nothing
     */
    public static function on(
        Observations $observations,
        PageFrame $frame,
        FitStart $start,
        Model $model = Model::Similar,
        array $doubtful = [],
    ): self {
        $fit = self::withOffers((new Fitter($model->shape()))->fit($observations, $frame, $start), $observations, $frame, $start);
        $out = [];
        $most = min(self::MOST, (int) (self::MOST_OUT * \count($doubtful)));
        while (
            \count($out) < $most
            && null !== ($blamed = Blamed::in($fit, $observations, $frame))
            && \in_array($blamed->length->id, $doubtful, true)
        ) {
            $out[] = $blamed->length->id;
            $observations = $observations->withLengths(array_map(
                static fn (KnownLength $l): KnownLength => $l->id === $blamed->length->id ? $l->asCheck() : $l,
                $observations->lengths,
            ));
            try {
                $rest = (new Fitter($model->shape()))->fit($observations, $frame, $start);
            } catch (FittingException) {
                array_pop($out); // the rest stands on it
                break;
            }
            $fit = self::withOffers($rest, $observations, $frame, $start);
        }

        return new self($fit, $out);
    }

    /** A fit by the smallest model that leaves no larger one on offer. */
    public static function withOffers(Fit $fit, Observations $observations, PageFrame $frame, FitStart $start): Fit
    {
        while (null !== $offer = Offer::beyond($fit, $observations, $frame, $start, Model::Perspective)) {
            $fit = $offer->fit;
        }

        return $fit;
    }
}
