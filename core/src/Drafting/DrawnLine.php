<?php

declare(strict_types=1);

namespace Plinth\Core\Drafting;

use Plinth\Core\Drafting\Exception\UnusableLine;
use Plinth\Core\Geometry\Arc;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;

/** Straight stretches and arcs that somebody has drawn on a storey, a side or a section. */
final readonly class DrawnLine
{
    /** What is shorter is no stretch, mm. */
    private const SHORTEST_MM = 0.01;
    private const LEAST_MM2 = 1e-3;

    /**
     * @param non-empty-list<Point> $corners mm
     * @param list<float> $rises of the stretch that begins at each corner over its chord, mm, positive to its left; 0 for a straight one
     */
    private function __construct(
        public array $corners,
        public array $rises,
        public bool $closed,
        public LineKind $kind,
        public Fill $fill,
    ) {
    }

    /**
     * @param list<Point> $corners
     * @param list<float> $rises
     *
     * @throws UnusableLine where it has no length, or closes to nothing
     */
    public static function through(
        array $corners,
        array $rises = [],
        bool $closed = false,
        LineKind $kind = LineKind::Narrow,
        Fill $fill = Fill::None,
    ): self {
        if (\count($corners) < 2) {
            throw UnusableLine::tooShort();
        }
        $line = new self($corners, $rises, $closed, $kind, $fill);
        foreach ($line->stretches() as $i => [$from, $to]) {
            if ($from->distanceTo($to) < self::SHORTEST_MM) {
                throw UnusableLine::twoOnOnePlace($i);
            }
        }
        $contour = $line->contour();
        if (null !== $contour && abs($contour->area()) < self::LEAST_MM2) {
            throw UnusableLine::enclosesNothing();
        }
        $crossing = $contour?->selfCrossing();
        if (null !== $crossing) {
            throw UnusableLine::crossesItself(...$crossing);
        }

        return $line;
    }

    /** @return float mm along all of it */
    public function length(): float
    {
        $length = 0.0;
        foreach ($this->stretches() as [$from, $to, $rise]) {
            $length += abs($rise) < Arc::LEAST_RISE_MM ? $from->distanceTo($to) : (new Arc($from, $to, $rise))->length();
        }

        return $length;
    }

    /** What it goes round, null while it does not close. */
    public function contour(): ?Contour
    {
        return $this->closed ? new Contour($this->corners, $this->rises) : null;
    }

    /** @return list<array{Point, Point, float}> from, to, rise */
    public function stretches(): array
    {
        $stretches = [];
        $n = \count($this->corners);
        for ($i = 0; $i < ($this->closed ? $n : $n - 1); ++$i) {
            $stretches[] = [$this->corners[$i], $this->corners[($i + 1) % $n], $this->rises[$i] ?? 0.0];
        }

        return $stretches;
    }
}
