<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Geometry\Arc;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Geometry\Segment;
use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/** A straight or curved wall. Its ends are those of the centre line, whichever line was traced. */
final readonly class Wall
{
    public const THICKEST_MM = 5000.0;
    /** Ends nearer than this are one node, so a wall must be longer. */
    public const JOIN_MM = 1.0;
    /** A chord stands for its piece of an arc where it lies no further off than this. */
    public const CHORD_MM = 0.2;

    public const MOST_RISE_MM = 1e6;

    /**
     * @param float $rise of an arc over its chord, mm, positive to the left of from → to; 0 is straight
     * @param bool $enclosing bounds rooms; a railing or a low wall does not
     * @param bool $toCeiling ends under the ceiling that covers it; others go on to the floor above or the roof
     * @param bool $railing stands as posts and balusters between rails
     *
     * @throws UnusableValue
     */
    public function __construct(
        public string $id,
        public Point $from,
        public Point $to,
        public float $thickness,
        public Line $line = Line::Centre,
        public ?float $height = null,
        public float $rise = 0.0,
        public bool $enclosing = true,
        public bool $toCeiling = false,
        public bool $railing = false,
    ) {
        Checked::places("wall $id", $from, $to);
        Checked::size("wall $id/thickness", $thickness, self::THICKEST_MM);
        Checked::size("wall $id/height", $height);
        Checked::within("wall $id/rise", $rise, self::MOST_RISE_MM);
    }

    /** The same between other ends. */
    public function between(Point $from, Point $to): self
    {
        return new self(
            $this->id,
            $from,
            $to,
            $this->thickness,
            $this->line,
            $this->height,
            $this->rise,
            $this->enclosing,
            $this->toCeiling,
            $this->railing,
        );
    }

    public function arc(): ?Arc
    {
        return abs($this->rise) < Arc::LEAST_RISE_MM || $this->from->distanceTo($this->to) <= self::JOIN_MM ? null : new Arc(
            $this->from,
            $this->to,
            $this->rise,
        );
    }

    /** along the centre line */
    public function length(): float
    {
        return $this->arc()?->length() ?? $this->from->distanceTo($this->to);
    }

    /** A point of the centre line, or beside it, by its distance from the start. */
    public function at(float $along, float $left = 0.0): Point
    {
        $length = $this->length();
        if (null !== ($arc = $this->arc())) {
            return $arc->at($along / $length, $left);
        }
        if ($length <= 0.0) {
            return $this->from;
        }
        $dx = ($this->to->x - $this->from->x) / $length;
        $dy = ($this->to->y - $this->from->y) / $length;

        return new Point($this->from->x + $along * $dx - $left * $dy, $this->from->y + $along * $dy + $left * $dx);
    }

    /** The point of its centre line that is nearest to another one. */
    public function nearest(Point $to): Point
    {
        $arc = $this->arc();
        if (null !== $arc) {
            return $arc->nearest($to);
        }
        [$x, $y] = Segment::nearest($to->toArray(), $this->from->toArray(), $this->to->toArray());

        return new Point($x, $y);
    }

    /**
     * Chords of the centre line from start to end; one for a straight wall.
     *
     * @return non-empty-list<Point>
     */
    public function chain(float $from = 0.0, ?float $to = null, float $left = 0.0): array
    {
        $to ??= $this->length();
        $n = $this->chords($to - $from);

        return array_map(fn (int $i): Point => $this->at($from + ($to - $from) * $i / $n, $left), range(0, $n));
    }

    /** Into how many chords a stretch of the wall falls. */
    public function chords(float $length): int
    {
        $arc = $this->arc();

        return $arc?->chords(self::CHORD_MM, $this->thickness / 2.0, $length / $arc->length()) ?? 1;
    }

    /** @return non-empty-list<array{float, float}> the body with squared ends, counter-clockwise from its start's right */
    public function body(): array
    {
        return $this->piece(0.0, $this->length());
    }

    /**
     * The body between two distances from the start, mm: along the right face and back along the left; four points of a
     * straight wall.
     *
     * @param float|null $right and left of it how far it reaches from the centre line, mm to its left; the wall's faces without them
     *
     * @return non-empty-list<array{float, float}>
     */
    public function piece(float $start, float $end, ?float $right = null, ?float $left = null): array
    {
        $half = $this->thickness / 2.0;

        return array_map(static fn (Point $p): array => $p->toArray(), [
            ...$this->chain($start, $end, $right ?? -$half),
            ...array_reverse($this->chain($start, $end, $left ?? $half)),
        ]);
    }

    /** How far from the start a point lies along the centre line, mm; beyond its ends too. */
    public function along(float $x, float $y): float
    {
        $length = $this->length();
        if (null !== ($arc = $this->arc())) {
            $turn = fmod(atan2($y - $arc->centre->y, $x - $arc->centre->x) - $arc->start, 2.0 * \M_PI);
            $ahead = $arc->sweep > 0.0 ? $turn : -$turn;
            // Whatever lies in the middle of what the arc leaves of its circle is as far before it as beyond.
            $most = \M_PI + abs($arc->sweep) / 2.0;

            return $arc->radius * match (true) {
                $ahead > $most => $ahead - 2.0 * \M_PI,
                $ahead < $most - 2.0 * \M_PI => $ahead + 2.0 * \M_PI,
                default => $ahead,
            };
        }

        [$dx, $dy] = [$this->to->x - $this->from->x, $this->to->y - $this->from->y];

        return (($x - $this->from->x) * $dx + ($y - $this->from->y) * $dy) / $length;
    }

    /** @return array{float, float, float, float} round its body and a millimetre more: xmin, ymin, xmax, ymax */
    public function box(): array
    {
        $r = $this->thickness / 2.0 + self::JOIN_MM;
        if (null === $this->arc()) {
            [$x1, $y1, $x2, $y2] = [
                min($this->from->x, $this->to->x),
                min($this->from->y, $this->to->y),
                max($this->from->x, $this->to->x),
                max($this->from->y, $this->to->y),
            ];
        } else {
            [$x1, $y1, $x2, $y2] = Polygon::bounds(array_map(static fn (Point $p): array => $p->toArray(), $this->chain()));
            $r += self::CHORD_MM;
        }

        return [$x1 - $r, $y1 - $r, $x2 + $r, $y2 + $r];
    }
}
