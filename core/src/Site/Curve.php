<?php

declare(strict_types=1);

namespace Plinth\Core\Site;

use Plinth\Core\Site\Exception\UnusableCurve;

/**
 * A circular curve of a boundary, as survey plans give it: by its radius and one of chord, arc length and central angle.
 *
 * With R the radius and Δ the central angle: chord = 2 R sin(Δ/2), arc length = R Δ, rise (middle ordinate) = R (1 − cos(Δ/2)); Wolf &
 * Ghilani, Elementary Surveying, the chapter on horizontal curves, from memory.
 */
final readonly class Curve
{
    /**
     * @param float $radius mm, > 0
     * @param float $angle at the centre, radians, in (0, 2π)
     */
    private function __construct(public float $radius, public float $angle, public Turns $turns)
    {
    }

    /**
     * The shorter of the two that have this chord.
     *
     * @throws UnusableCurve
     */
    public static function byChord(float $radius, float $chord, Turns $turns): self
    {
        if (!($chord > 0.0) || $chord > 2.0 * $radius) {
            throw UnusableCurve::chordTooLong($chord, $radius);
        }

        return new self($radius, 2.0 * asin($chord / 2.0 / $radius), $turns);
    }

    /** @throws UnusableCurve */
    public static function byLength(float $radius, float $length, Turns $turns): self
    {
        return $radius > 0.0 ? self::byAngle($radius, rad2deg($length / $radius), $turns) : throw UnusableCurve::noRadius();
    }

    /**
     * @param float $degrees at its centre
     *
     * @throws UnusableCurve
     */
    public static function byAngle(float $radius, float $degrees, Turns $turns): self
    {
        if (!($radius > 0.0)) {
            throw UnusableCurve::noRadius();
        }
        if (!($degrees > 0.0) || $degrees >= 360.0) {
            throw UnusableCurve::noPartOfACircle($degrees);
        }

        return new self($radius, deg2rad($degrees), $turns);
    }

    public function chord(): float
    {
        return 2.0 * $this->radius * sin($this->angle / 2.0);
    }

    public function length(): float
    {
        return $this->radius * $this->angle;
    }

    /** @return float mm over the chord, positive to its left as it runs */
    public function rise(): float
    {
        $rise = $this->radius * (1.0 - cos($this->angle / 2.0));

        // Who turns to the left walks round to the right of the chord.
        return Turns::Left === $this->turns ? -$rise : $rise;
    }
}
