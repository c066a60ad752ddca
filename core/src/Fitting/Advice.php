<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Fitting\Exception\NothingToFit;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Units\Length;

/** What the designer should hear about a fit, most useful first. */
final readonly class Advice
{
    private function __construct(
        public string $code,
        public string $message,
        public ?PixelPoint $from = null,
        public ?PixelPoint $to = null,
    ) {
    }

    /** @return list<self> */
    public static function on(Fit $fit, Observations $observations, PageFrame $frame): array
    {
        $advice = [];
        if (Model::Perspective !== $fit->model && $frame->beforehand->isSlanted()) {
            $advice[] = new self(
                'slanted',
                'Lines that run alongside each other converge here: it is a photograph taken at a slant, and is not straightened yet.',
            );
        }
        if (!$fit->determined->scale) {
            $advice[] = new self('no-known-length', 'Nothing says how large this drawing is. Pick the longest length you know.');
        }
        $blamed = Blamed::in($fit, $observations, $frame);
        if (null !== $blamed) {
            $advice[] = new self(
                'suspect',
                \sprintf(
                    'The length of %s disagrees with the rest, which would agree with %s.',
                    Length::told($blamed->length->mm, 0),
                    Length::told($blamed->readsMm, 0),
                ),
            );
        }
        if (!$fit->holds && 1 === $fit->degreesOfFreedom) {
            $advice[] = new self(
                'two-disagree',
                'The statements disagree by more than they claim, and nothing tells which is wrong. One more known length will tell.',
            );
        }
        if (!$fit->determined->turn) {
            $advice[] = new self('no-grid-line', 'Nothing says which way the drawing is turned. Pick a long line that runs with the grid.');
        }
        $other = NextLength::inTheOtherDirection($fit, $observations, $frame);
        if (null !== $other) {
            $advice[] = new self(
                'other-direction',
                \sprintf(
                    'All lengths run %s. One %s would show whether the copy is stretched.',
                    'down' === $other->direction ? 'across' : 'down',
                    $other->direction.' the drawing',
                ),
                $other->from,
                $other->to,
            );
        }
        $next = NextLength::after($fit, $observations, $frame);
        // The same asked for twice would be once too often.
        if (null !== $next && $next->direction !== $other?->direction) {
            $advice[] = new self(
                'next-length-'.$next->direction,
                \sprintf(
                    'A length %s the drawing would bring ±%s to ±%s over 10 m.',
                    'across' === $next->direction ? 'across' : 'down',
                    Length::told($fit->plusMinusMmPer10m ?? 0.0),
                    Length::told($next->plusMinusMmPer10m),
                ),
                $next->from,
                $next->to,
            );
        }
        if ($fit->determined->scale && [] === array_filter($observations->lengths, static fn (KnownLength $l): bool => $l->heldOut)) {
            $advice[] = new self('no-check', 'Nothing checks the fit from outside. Hold a known length out as a check length.');
        }
        // Whoever needs it better is not left without a word.
        if ([] === $advice && null !== $fit->plusMinusMmPer10m) {
            $advice[] = new self('no-single', Model::Perspective === $fit->model
                ? 'No single length makes ± much smaller. A known rectangle, or lines that are level or plumb on the other side '
                    .'of the picture, would say how it recedes.'
                : 'No single length makes ± much smaller. Several more along both axes would, or sizes taped on site.');
        }

        return $advice;
    }

    /** The model that was asked for is not determined yet. */
    public static function more(Model $model): self
    {
        return new self('more-for-'.$model->value, NothingToFit::tooLittleFor($model)->getMessage());
    }
}
