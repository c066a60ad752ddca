<?php

declare(strict_types=1);

namespace Plinth\Core\Elevation;

use Plinth\Core\Elevation\Exception\UnusableOutline;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;

/** What is traced round on an elevation: a face of the building, an opening, a roof. */
final readonly class Outline
{
    /** @param non-empty-list<Point> $corners in order round it, mm */
    private function __construct(public array $corners)
    {
    }

    /**
     * @param list<Point> $corners in order round it, mm
     *
     * @throws UnusableOutline when there are fewer than three, or its edges cross
     */
    public static function round(array $corners): self
    {
        if (\count($corners) < 3) {
            throw UnusableOutline::tooFewCorners(\count($corners));
        }
        $crossing = Polygon::selfCrossing(array_map(static fn (Point $p): array => $p->toArray(), $corners));
        if (null !== $crossing) {
            throw UnusableOutline::crossesItself(...$crossing);
        }

        return new self($corners);
    }

    /** @return float m² */
    public function areaM2(): float
    {
        return abs(Polygon::area($this->ring())) / 1e6;
    }

    /** @return float mm */
    public function width(): float
    {
        [$left, , $right] = Polygon::bounds($this->ring());

        return $right - $left;
    }

    /** @return float mm */
    public function height(): float
    {
        [, $bottom, , $top] = Polygon::bounds($this->ring());

        return $top - $bottom;
    }

    /** @return non-empty-list<array{float, float}> */
    private function ring(): array
    {
        return array_map(static fn (Point $p): array => $p->toArray(), $this->corners);
    }
}
