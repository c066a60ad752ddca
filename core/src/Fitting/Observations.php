<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Fitting\Exception\UnusableObservation;
use Plinth\Core\Geometry\PixelPoint;

/**
 * All that is stated about one drawing: picks, and what is known between them.
 *
 * A pick that serves several statements stands in the list once, so its error is counted once.
 */
final readonly class Observations
{
    /** @var array<string, Pick> */
    public array $picks;

    /**
     * @param list<Pick> $picks
     * @param list<KnownLength> $lengths
     * @param list<GridPick> $grid
     * @param list<ControlPoint> $points
     * @param list<Rectangle> $rectangles
     * @param bool $pointsKeepSize control points say where the drawing lies and how it is turned, but not how large it is
     *
     * @throws UnusableObservation when picks coincide, a length is not above zero, corners do not go round, or a pick is missing
     */
    public function __construct(
        array $picks,
        public array $lengths = [],
        public array $grid = [],
        public array $points = [],
        public array $rectangles = [],
        public ?StatedScale $scale = null,
        public bool $pointsKeepSize = false,
    ) {
        $byId = [];
        foreach ($picks as $pick) {
            if (!is_finite($pick->at->x) || !is_finite($pick->at->y) || !is_finite($pick->sigmaPx) || $pick->sigmaPx <= 0.0) {
                throw UnusableObservation::badPick($pick);
            }
            $byId[$pick->id] = $pick;
        }
        $this->picks = $byId;
        foreach ($lengths as $i => $length) {
            if (!is_finite($length->mm) || $length->mm <= 0.0) {
                throw UnusableObservation::lengthNotPositive($i, $length->mm);
            }
            if (!is_finite($length->sigmaMm) || $length->sigmaMm < 0.0) {
                throw UnusableObservation::badSigma($i);
            }
            $this->requireApart('lengths', $i, $length->a, $length->b);
            if ($length->betweenPicksMm() <= 0.0) {
                throw UnusableObservation::thickerThanLong($i, $length->mm, $length->allowanceMm);
            }
            if (Along::Across === $length->along) {
                $this->requireBeside($i, $length);
            }
        }
        foreach ($grid as $i => $line) {
            $this->requireApart('grid', $i, $line->a, $line->b);
        }
        foreach ($points as $i => $point) {
            $this->pick($point->pick);
            foreach (\array_slice($points, 0, $i) as $other) {
                if ($other->pick === $point->pick || $other->at->distanceTo($point->at) < 1e-6) {
                    throw UnusableObservation::samePlace($i);
                }
                $this->requireApart('points', $i, $other->pick, $point->pick);
            }
        }
        foreach ($rectangles as $i => $rectangle) {
            $this->requireRound($i, $rectangle);
        }
        if (null !== $scale && (!is_finite($scale->mmPerPixel) || $scale->mmPerPixel <= 0.0 || $scale->sigmaPart <= 0.0)) {
            throw UnusableObservation::badScale();
        }
    }

    public function pick(string $id): Pick
    {
        return $this->picks[$id] ?? throw UnusableObservation::missingPick($id);
    }

    public function withoutLength(string $id): self
    {
        return $this->withLengths(array_values(array_filter($this->lengths, static fn (KnownLength $l): bool => $l->id !== $id)));
    }

    public function withLength(KnownLength $length, Pick ...$picks): self
    {
        return new self(
            [...array_values($this->picks), ...array_values($picks)],
            [...$this->lengths, $length],
            $this->grid,
            $this->points,
            $this->rectangles,
            $this->scale,
            $this->pointsKeepSize,
        );
    }

    /** @param list<KnownLength> $lengths */
    public function withLengths(array $lengths): self
    {
        return new self(
            array_values($this->picks),
            $lengths,
            $this->grid,
            $this->points,
            $this->rectangles,
            $this->scale,
            $this->pointsKeepSize,
        );
    }

    /** @return list<KnownLength> those that the fit rests on */
    public function used(): array
    {
        return array_values(array_filter($this->lengths, static fn (KnownLength $l): bool => !$l->heldOut));
    }

    private function requireApart(string $list, int $index, string $a, string $b): void
    {
        $apart = $this->pick($a)->at->distanceTo($this->pick($b)->at);
        if ($apart < UnusableObservation::APART_PX) {
            throw UnusableObservation::coincidentPicks($list, $index, $apart);
        }
    }

    private function requireBeside(int $index, KnownLength $length): void
    {
        if (null === $length->c) {
            throw UnusableObservation::acrossWithoutLine($index);
        }
        $this->requireApart('lengths', $index, $length->a, $length->c);
        [$a, $b, $c] = [$this->pick($length->a)->at, $this->pick($length->b)->at, $this->pick($length->c)->at];
        $off = abs(($c->x - $a->x) * ($b->y - $a->y) - ($c->y - $a->y) * ($b->x - $a->x)) / $a->distanceTo($c);
        if ($off < UnusableObservation::APART_PX) {
            throw UnusableObservation::onTheLine($index);
        }
    }

    /** Four corners, none on the line of its neighbours, all turning the same way. */
    private function requireRound(int $index, Rectangle $rectangle): void
    {
        if (4 !== \count($rectangle->corners)) {
            throw UnusableObservation::notFourCorners($index);
        }
        if ($rectangle->widthMm <= 0.0 || $rectangle->depthMm <= 0.0 || $rectangle->sigmaMm < 0.0) {
            throw UnusableObservation::sideNotPositive($index);
        }
        $at = array_map(fn (string $id): PixelPoint => $this->pick($id)->at, $rectangle->corners);
        $turns = [];
        for ($k = 0; $k < 4; ++$k) {
            [$p, $q, $r] = [$at[$k], $at[($k + 1) % 4], $at[($k + 2) % 4]];
            $this->requireApart('rectangles', $index, $rectangle->corners[$k], $rectangle->corners[($k + 1) % 4]);
            $cross = ($q->x - $p->x) * ($r->y - $q->y) - ($q->y - $p->y) * ($r->x - $q->x);
            // A corner nearer than a pixel to the line of its neighbours turns nowhere.
            $turns[] = abs($cross) < UnusableObservation::APART_PX * max(
                $p->distanceTo($q),
                $q->distanceTo($r),
            ) ? 0 : ($cross > 0.0 ? 1 : -1);
        }
        if (1 !== \count(array_unique($turns)) || 0 === $turns[0]) {
            throw UnusableObservation::cornersDoNotGoRound($index);
        }
    }
}
