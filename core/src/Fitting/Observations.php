<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Fitting\Exception\UnusableObservation;

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
     *
     * @throws UnusableObservation when picks coincide, a length is not above zero, or a pick is missing
     */
    public function __construct(array $picks, public array $lengths = [], public array $grid = [], public array $points = [])
    {
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
        }
        foreach ($grid as $i => $line) {
            $this->requireApart('grid', $i, $line->a, $line->b);
        }
        foreach ($points as $point) {
            $this->pick($point->pick);
        }
    }

    public function pick(string $id): Pick
    {
        return $this->picks[$id] ?? throw UnusableObservation::missingPick($id);
    }

    public function withoutLength(string $id): self
    {
        return new self(array_values($this->picks), array_values(array_filter($this->lengths, static fn (KnownLength $l): bool => $l->id !== $id)), $this->grid, $this->points);
    }

    public function withLength(KnownLength $length, Pick ...$picks): self
    {
        return new self([...array_values($this->picks), ...array_values($picks)], [...$this->lengths, $length], $this->grid, $this->points);
    }

    private function requireApart(string $list, int $index, string $a, string $b): void
    {
        $apart = $this->pick($a)->at->distanceTo($this->pick($b)->at);
        if ($apart < UnusableObservation::APART_PX) {
            throw UnusableObservation::coincidentPicks($list, $index, $apart);
        }
    }
}
