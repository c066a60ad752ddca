<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/**
 * A circular arc between two points by its rise over the chord, positive to the left of from → to.
 *
 * With c the chord and h the rise: r = (c²/4 + h²) / 2|h|, and the angle at the centre is 4 atan(2h/c); any textbook of
 * mensuration has both.
 */
final readonly class Arc
{
    /** What rises less over its chord is straight: no chord that stands for an arc lies as near to it. */
    public const LEAST_RISE_MM = 0.01;

    public Point $centre;
    public float $radius;
    /** of the start, seen from the centre, radians */
    public float $start;
    /** from start to end, radians, counter-clockwise positive; a rise to the left turns clockwise */
    public float $sweep;

    public function __construct(public Point $from, public Point $to, float $rise)
    {
        $chord = $from->distanceTo($to);
        $this->radius = ($chord * $chord / 4.0 + $rise * $rise) / (2.0 * abs($rise));
        // From the chord's middle towards the side the arc rises to, and back by a radius.
        $back = $rise - ($rise > 0.0 ? $this->radius : -$this->radius);
        $this->centre = new Point(
            ($from->x + $to->x) / 2.0 - ($to->y - $from->y) / $chord * $back,
            ($from->y + $to->y) / 2.0 + ($to->x - $from->x) / $chord * $back,
        );
        $this->start = atan2($from->y - $this->centre->y, $from->x - $this->centre->x);
        $this->sweep = -4.0 * atan(2.0 * $rise / $chord);
    }

    public function length(): float
    {
        return $this->radius * abs($this->sweep);
    }

    /** Whether a direction from its centre, radians, lies within it. */
    public function spans(float $angle): bool
    {
        $ahead = fmod(($this->sweep > 0.0 ? 1.0 : -1.0) * ($angle - $this->start), 2.0 * \M_PI);

        return ($ahead < 0.0 ? $ahead + 2.0 * \M_PI : $ahead) <= abs($this->sweep);
    }

    /** The point of it nearest to another one. */
    public function nearest(Point $to): Point
    {
        $angle = atan2($to->y - $this->centre->y, $to->x - $this->centre->x);
        if ($this->spans($angle)) {
            return new Point($this->centre->x + $this->radius * cos($angle), $this->centre->y + $this->radius * sin($angle));
        }

        return $to->distanceTo($this->from) <= $to->distanceTo($this->to) ? $this->from : $this->to;
    }

    /**
     * Into how many equal chords it falls that nothing lies further than this off it, or off a line beside it outside.
     *
     * @param float $offMm sagitta, r (1 − cos(θ/2))
     * @param float $outside how much further from the centre that line lies, mm
     * @param float $part of the arc
     */
    public function chords(float $offMm, float $outside = 0.0, float $part = 1.0): int
    {
        $step = 2.0 * acos(max(-1.0, 1.0 - $offMm / ($this->radius + $outside)));

        return max(1, (int) ceil(abs($part * $this->sweep) / $step));
    }

    /**
     * @param float $part of the way from start to end, 0 to 1
     * @param float $left mm to the left of the arc, as it runs
     */
    public function at(float $part, float $left = 0.0): Point
    {
        // What lies left of a counter-clockwise arc lies nearer to its centre.
        $radius = $this->radius - ($this->sweep > 0.0 ? $left : -$left);
        $angle = $this->start + $part * $this->sweep;

        return new Point($this->centre->x + $radius * cos($angle), $this->centre->y + $radius * sin($angle));
    }

    /**
     * Rise of the arc through three points over the chord of the outer two; 0 where they lie on one line.
     */
    public static function riseThrough(Point $from, Point $on, Point $to): float
    {
        $chord = $from->distanceTo($to);
        $u = (($on->x - $from->x) * ($to->x - $from->x) + ($on->y - $from->y) * ($to->y - $from->y)) / $chord;
        $v = (($on->y - $from->y) * ($to->x - $from->x) - ($on->x - $from->x) * ($to->y - $from->y)) / $chord;
        if (abs($v) < 1e-9 * $chord) {
            return 0.0;
        }
        // Centre at (c/2, k) over the chord: k from equal distance to the start and the point.
        $k = ($u * $u + $v * $v - $u * $chord) / (2.0 * $v);
        $radius = hypot($chord / 2.0, $k);

        $rise = $v > 0.0 ? $k + $radius : $k - $radius;

        return abs($rise) < self::LEAST_RISE_MM ? 0.0 : $rise;
    }
}
