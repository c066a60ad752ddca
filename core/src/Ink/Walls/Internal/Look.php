<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

/**
 * How a line that may be a wall is drawn, wherever its ends come to lie.
 *
 * @internal
 */
final readonly class Look
{
    /**
     * @param float $tone mean ink between the faces, 0 to 255
     * @param float $wear part of it that is filled otherwise, 0 to 1
     * @param float $pen how wide its lines are for the drawing's widest: the logarithm; 0 where a filling hides them
     * @param bool $isHatched lines run along both its faces, and strokes come again between them
     * @param float $even part of it where both its edges were seen, 0 to 1
     * @param bool $isLoose its stretches lie further off each other than those of ruled lines
     */
    private function __construct(
        public Filling $filling,
        public float $tone,
        public float $wear,
        public float $pen,
        public bool $isHatched,
        public float $even,
        public bool $isLoose,
    ) {
    }

    public static function of(Strip $strip, Pens $pens, bool $isLoose): self
    {
        return new self(
            $strip->filling,
            $strip->tone,
            $strip->wear,
            $pens->width($strip),
            null !== $strip->rim,
            $strip->even,
            $isLoose,
        );
    }
}
