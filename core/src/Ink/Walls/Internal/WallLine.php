<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Segment;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Walls\ProbedWall;
use Plinth\Core\Ink\Walls\ProposedWall;
use Plinth\Core\Ink\Walls\WallEvidence;
use Plinth\Core\Ink\Walls\WallProbe;

/**
 * A wall in the building, from stretches in one line.
 *
 * @internal
 */
final readonly class WallLine
{
    /** how far the end of a wall may fall short of the one it meets, beyond that one's face, mm */
    public const SHORT = 60.0;
    /** part of its thickness by which walls alike differ */
    public const LIKE = 0.15;
    /** Lines that run off by less are parallel, radians. */
    private const PARALLEL = 0.26;

    /**
     * @param list<array{float, float}> $parts where the wall itself shows, mm from its beginning
     * @param float $confidence how likely it is a wall, 0 to 1
     */
    private function __construct(
        public Point $from,
        public Point $to,
        public float $thickness,
        public array $parts,
        public Look $look,
        public ?ProbedWall $probe = null,
        public float $confidence = 0.0,
    ) {
    }

    public static function of(Strip $strip, float $turn, Pens $pens, bool $isLoose = false): self
    {
        [$c, $s] = [cos($turn), sin($turn)];
        $point = static fn (float $along): Point => $strip->plumb ? new Point(
            $c * $strip->at - $s * $along,
            $s * $strip->at + $c * $along,
        ) : new Point($c * $along - $s * $strip->at, $s * $along + $c * $strip->at);

        return new self(
            $point($strip->from),
            $point($strip->to),
            $strip->thickness,
            array_map(static fn (array $p): array => [$p[0] - $strip->from, $p[1] - $strip->from], $strip->parts),
            Look::of($strip, $pens, $isLoose),
        );
    }

    public function length(): float
    {
        return $this->from->distanceTo($this->to);
    }

    public function seen(): float
    {
        return array_sum(array_map(static fn (array $p): float => $p[1] - $p[0], $this->parts));
    }

    /** The longest stretch where it shows, mm. */
    public function longest(): float
    {
        return max([0.0, ...array_map(static fn (array $p): float => $p[1] - $p[0], $this->parts)]);
    }

    /** @return array{float, float} */
    public function direction(): array
    {
        $length = max(1e-9, $this->length());

        return [($this->to->x - $this->from->x) / $length, ($this->to->y - $this->from->y) / $length];
    }

    /**
     * Laid on the ink of the page itself.
     */
    public function probed(PageInk $pageInk, PixelToMm $map): self
    {
        // Where the wall shows, but not its very ends: there others meet it.
        $stretches = [];
        foreach ($this->parts as [$a, $b]) {
            $cut = min(40.0, 0.15 * ($b - $a));
            $stretches[] = [$a + $cut, $b - $cut];
        }
        $probe = WallProbe::along($pageInk, $map, $this->from, $this->to, $this->thickness, $stretches);
        // What turned away from the line was something else.
        if (
            null === $probe
            || abs($probe->thickness - $this->thickness) > max(70.0, 0.4 * $this->thickness)
            || $this->distance($probe->from) > 80.0
            || $this->distance($probe->to) > 80.0
        ) {
            return $this;
        }

        return new self($probe->from, $probe->to, $probe->thickness, $this->parts, $this->look, $probe, $this->confidence);
    }

    /** Judged. */
    public function as(float $confidence): self
    {
        return new self($this->from, $this->to, $this->thickness, $this->parts, $this->look, $this->probe, $confidence);
    }

    /** Its ends moved along it. */
    public function between(Point $from, Point $to): self
    {
        [$ux, $uy] = $this->direction();
        $shift = ($this->from->x - $from->x) * $ux + ($this->from->y - $from->y) * $uy;

        return new self(
            $from,
            $to,
            $this->thickness,
            array_map(static fn (array $p): array => [$p[0] + $shift, $p[1] + $shift], $this->parts),
            $this->look,
            $this->probe,
            $this->confidence,
        );
    }

    /**
     * @param list<self> $all
     * @param list<array{float, float, bool}> $stretches of it between meetings, and whether walls close round there
     *
     * @return non-empty-list<WallEvidence> stretch by stretch
     */
    public function evidence(array $all, array $stretches): array
    {
        $length = max(1.0, $this->length());
        $sum = array_sum(array_map(static fn (self $o): float => $o->seen(), $all));
        $like = array_filter($all, fn (self $o): bool => abs($o->thickness - $this->thickness) <= self::LIKE * $this->thickness);
        $met = ($this->isMet($this->from, $all) ? 1 : 0) + ($this->isMet($this->to, $all) ? 1 : 0);
        $evidence = [];
        $stretches = [] === $stretches ? [[0.0, $length, false]] : $stretches;
        foreach ($stretches as $k => [$from, $to, $isOnRound]) {
            $shown = array_map(static fn (array $p): float => max(0.0, min($to, $p[1]) - max($from, $p[0])), $this->parts);
            $evidence[] = new WallEvidence(
                $this->from->towards($this->to, $from / $length),
                $this->from->towards($this->to, $to / $length),
                $isOnRound,
                array_sum($shown) / max(1.0, $to - $from),
                $this->seen() / $length,
                $met,
                $length,
                array_sum(array_map(static fn (self $o): float => $o->seen(), $like)) / max(1.0, $sum),
                $this->thickness,
                $this->confidence,
                0 === $k || \count($stretches) - 1 === $k,
            );
        }

        return $evidence;
    }

    /** @param list<WallEvidence> $evidence */
    public function proposal(float $confidence, array $evidence): ProposedWall
    {
        return new ProposedWall(
            $this->from,
            $this->to,
            $this->thickness,
            $this->probe->centreSigma ?? 15.0,
            $this->probe->thicknessSigma ?? 20.0,
            $confidence,
            $this->look->filling->value,
            $evidence,
        );
    }

    public function distance(Point $p): float
    {
        [$x, $y] = Segment::nearest([$p->x, $p->y], [$this->from->x, $this->from->y], [$this->to->x, $this->to->y]);

        return hypot($x - $p->x, $y - $p->y);
    }

    public function isParallelTo(self $other): bool
    {
        [$ax, $ay] = $this->direction();
        [$bx, $by] = $other->direction();

        return abs($ax * $by - $ay * $bx) < sin(self::PARALLEL);
    }

    /**
     * Whether an end of it meets another wall.
     *
     * @param list<self> $all
     */
    public function isMet(Point $end, array $all): bool
    {
        foreach ($all as $other) {
            if ($other !== $this && $this->meets($other, $end)) {
                return true;
            }
        }

        return false;
    }

    public function meets(self $other, Point $end): bool
    {
        if ($this->isParallelTo($other)) {
            return min(
                $end->distanceTo($other->from),
                $end->distanceTo($other->to),
            ) <= self::SHORT + 0.5 * abs($this->thickness - $other->thickness);
        }

        return $other->distance($end) <= hypot($other->thickness, $this->thickness) / 2.0 + self::SHORT;
    }

    /** Part of this one's length that lies on the other's body. */
    public function overlap(self $other): float
    {
        if (!$this->isParallelTo($other)) {
            return 0.0;
        }
        $on = 0;
        for ($k = 0; $k < 20; ++$k) {
            $t = ($k + 0.5) / 20;
            $p = new Point($this->from->x + $t * ($this->to->x - $this->from->x), $this->from->y + $t * ($this->to->y - $this->from->y));
            $on += $other->distance($p) < 0.35 * ($this->thickness + $other->thickness) ? 1 : 0;
        }

        return $on / 20;
    }

    /** Whether it runs beside a parallel one so that a face of either is one line. */
    public function sharesFace(self $other, float $withinMm): bool
    {
        $middle = $this->from->towards($this->to, 0.5);
        [$ux, $uy] = $other->direction();
        $along = ($middle->x - $other->from->x) * $ux + ($middle->y - $other->from->y) * $uy;
        $off = abs(($middle->y - $other->from->y) * $ux - ($middle->x - $other->from->x) * $uy);

        return $along > 0.0 && $along < $other->length()
            && abs($off - ($this->thickness + $other->thickness) / 2.0) <= $withinMm;
    }
}
