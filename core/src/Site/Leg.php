<?php

declare(strict_types=1);

namespace Plinth\Core\Site;

use Plinth\Core\Geometry\Arc;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Site\Exception\UnusableCurve;
use Plinth\Core\Units\Bearing;
use Plinth\Core\Units\Exception\UnreadableBearing;
use Plinth\Core\Units\Exception\UnreadableLength;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;

/** One piece of a boundary, as it was measured. */
final readonly class Leg
{
    /**
     * @param Bearing $bearing of its chord
     * @param float $mm horizontal length from end to end, > 0
     * @param float $rise of a curve over its chord, mm, positive to the left as it runs; 0 where it is straight
     */
    public function __construct(public Bearing $bearing, public float $mm, public float $rise = 0.0)
    {
    }

    /**
     * A leg as it is written on a plan.
     *
     * @param LengthUnit $unit of bare numbers
     * @param string $radius of a curve; empty where it is straight
     * @param CurveFigure $figure what of the curve the length gives
     *
     * @throws UnreadableBearing
     * @throws UnreadableLength
     * @throws UnusableCurve
     */
    public static function written(
        string $bearing,
        string $length,
        LengthUnit $unit,
        string $radius = '',
        Turns $turns = Turns::Left,
        CurveFigure $figure = CurveFigure::Chord,
    ): self {
        $chord = Bearing::parse($bearing);
        if ('' === trim($radius)) {
            return new self($chord, LengthParser::parse($length, $unit)->mm);
        }
        $r = LengthParser::parse($radius, $unit)->mm;

        return self::curved($chord, match ($figure) {
            CurveFigure::Chord => Curve::byChord($r, LengthParser::parse($length, $unit)->mm, $turns),
            CurveFigure::Arc => Curve::byLength($r, LengthParser::parse($length, $unit)->mm, $turns),
            CurveFigure::Angle => Curve::byAngle($r, Bearing::parse($length)->degrees, $turns),
        });
    }

    public static function curved(Bearing $chord, Curve $curve): self
    {
        return new self($chord, $curve->chord(), $curve->rise());
    }

    /** @param float $degrees clockwise */
    public function turned(float $degrees): self
    {
        return new self($this->bearing->turned($degrees), $this->mm, $this->rise);
    }

    /** @return float mm along it */
    public function length(): float
    {
        return 0.0 === $this->rise ? $this->mm : (new Arc(new Point(0.0, 0.0), new Point($this->mm, 0.0), $this->rise))->length();
    }

    /** @return float mm to the east */
    public function departure(): float
    {
        return $this->mm * sin($this->bearing->radians());
    }

    /** @return float mm to the north */
    public function latitude(): float
    {
        return $this->mm * cos($this->bearing->radians());
    }
}
