<?php

declare(strict_types=1);

namespace Plinth\Core\Site;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Site\Exception\UnusableBoundary;

/**
 * A boundary followed leg by leg back to its beginning. What is missing at the end, the misclosure, is shared out over the legs in
 * proportion to their lengths: the compass rule of Bowditch (Wolf & Ghilani, Elementary Surveying, from memory). x runs east, y north.
 */
final readonly class Traverse
{
    /** Boundaries that close worse than this part of their length are refused: a leg is missing or mistyped. */
    private const WORST_PART = 1.0 / 50.0;

    /**
     * @param list<Leg> $legs
     * @param Contour $contour adjusted: a corner for each leg, where it begins
     * @param float $lengthMm along the legs and their curves, as measured
     */
    private function __construct(
        public array $legs,
        public Contour $contour,
        public float $misclosureX,
        public float $misclosureY,
        public float $lengthMm,
    ) {
    }

    /**
     * @param list<Leg> $legs in order round the site
     *
     * @throws UnusableBoundary when there are fewer than three legs, one has no length, it does not close, or it crosses itself
     */
    public static function closed(array $legs, Point $from = new Point(0.0, 0.0)): self
    {
        if (\count($legs) < 3) {
            throw UnusableBoundary::tooFewLegs(\count($legs));
        }
        foreach ($legs as $i => $leg) {
            if (!is_finite($leg->mm) || $leg->mm <= 0.0) {
                throw UnusableBoundary::legWithoutLength($i);
            }
        }
        $chords = array_sum(array_map(static fn (Leg $l): float => $l->mm, $legs));
        $dx = array_sum(array_map(static fn (Leg $l): float => $l->departure(), $legs));
        $dy = array_sum(array_map(static fn (Leg $l): float => $l->latitude(), $legs));
        if (hypot($dx, $dy) > self::WORST_PART * $chords) {
            throw UnusableBoundary::doesNotClose(hypot($dx, $dy), $chords);
        }
        $corners = [];
        $rises = [];
        $measured = 0.0;
        [$x, $y] = [$from->x, $from->y];
        foreach ($legs as $leg) {
            $corners[] = new Point($x, $y);
            $along = $leg->departure() - $dx * $leg->mm / $chords;
            $up = $leg->latitude() - $dy * $leg->mm / $chords;
            // A curve keeps its angle where its chord is adjusted.
            $rises[] = $leg->rise * hypot($along, $up) / $leg->mm;
            $measured += $leg->length();
            $x += $along;
            $y += $up;
        }
        $contour = new Contour($corners, $rises);
        $crossing = $contour->selfCrossing();
        if (null !== $crossing) {
            throw UnusableBoundary::crossesItself(...$crossing);
        }

        return new self($legs, $contour, $dx, $dy, $measured);
    }

    /**
     * The corners as measured, from where it begins to where it ends.
     *
     * @param list<Leg> $legs
     *
     * @return list<Point> one more than legs
     */
    public static function path(array $legs, Point $from = new Point(0.0, 0.0)): array
    {
        $path = [$from];
        foreach ($legs as $leg) {
            $from = new Point($from->x + $leg->departure(), $from->y + $leg->latitude());
            $path[] = $from;
        }

        return $path;
    }

    /**
     * The leg that brings a boundary back to its beginning where one was not measured.
     *
     * @param list<Leg> $legs the others, in any order
     *
     * @return array{float, float} length in mm, and bearing in degrees
     */
    public static function missing(array $legs): array
    {
        $dx = -array_sum(array_map(static fn (Leg $l): float => $l->departure(), $legs));
        $dy = -array_sum(array_map(static fn (Leg $l): float => $l->latitude(), $legs));

        return [hypot($dx, $dy), fmod(rad2deg(atan2($dx, $dy)) + 360.0, 360.0)];
    }

    /** @return float mm between where it ends and where it began, as measured */
    public function misclosureMm(): float
    {
        return hypot($this->misclosureX, $this->misclosureY);
    }

    /** @return float|null n of 1 : n; null where it closes exactly, to the micrometre */
    public function precision(): ?float
    {
        return $this->misclosureMm() < 1e-3 ? null : $this->lengthMm / $this->misclosureMm();
    }

    /**
     * A leg after the adjustment.
     *
     * @return array{float, float} departure and latitude, mm
     */
    public function adjusted(int $leg): array
    {
        $corners = $this->contour->corners;
        [$from, $to] = [$corners[$leg], $corners[($leg + 1) % \count($corners)]];

        return [$to->x - $from->x, $to->y - $from->y];
    }

    /** @return float m² inside the adjusted boundary */
    public function areaM2(): float
    {
        return abs($this->contour->area()) / 1e6;
    }
}
