<?php

declare(strict_types=1);

namespace Plinth\Core\Elevation;

use Plinth\Core\Elevation\Exception\UnusableOutline;
use Plinth\Core\Geometry\Arc;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;

/** What is traced round on an elevation: a face of the building, an opening, a roof. */
final readonly class Outline
{
    private function __construct(public Contour $contour)
    {
    }

    /**
     * @param list<Point> $corners in order round it, mm
     * @param list<float> $rises of the edges that begin at them, mm, positive to the left; 0 or none for straight ones
     *
     * @throws UnusableOutline when they enclose nothing, or its edges cross
     */
    public static function round(array $corners, array $rises = []): self
    {
        $bowed = \count(array_filter($rises, static fn (float $r): bool => abs($r) >= Arc::LEAST_RISE_MM));
        if (\count($corners) < 2 || (2 === \count($corners) && 0 === $bowed)) {
            throw UnusableOutline::tooFewCorners(\count($corners));
        }
        $contour = new Contour($corners, $rises);
        $crossing = $contour->selfCrossing();
        if (null !== $crossing) {
            throw UnusableOutline::crossesItself(...$crossing);
        }

        return new self($contour);
    }

    /** @return float m² */
    public function areaM2(): float
    {
        return abs($this->contour->area()) / 1e6;
    }

    /** @return float mm */
    public function width(): float
    {
        [$left, , $right] = $this->contour->bounds();

        return $right - $left;
    }

    /** @return float mm */
    public function height(): float
    {
        [, $bottom, , $top] = $this->contour->bounds();

        return $top - $bottom;
    }
}
