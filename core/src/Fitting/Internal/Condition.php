<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Internal;

/**
 * An equation that a statement sets up between where its picks lie in the model and the figure stated. It is zero where
 * both are free of error.
 *
 * @internal
 */
interface Condition
{
    /** @return list<string> ids of the picks it holds between */
    public function picks(): array;

    /** @return array<string, float> ids of the figures stated, each with the derivative of the equation by it */
    public function figures(): array;

    /** Whether it speaks of places in the model; others do not change when the drawing is moved. */
    public function isPlaced(): bool;

    /**
     * @param list<array{float, float}> $at where the picks lie, mm
     *
     * @return array{float, list<array{float, float}>} its value with the figures as stated, and its derivatives by the place of each pick
     */
    public function of(array $at): array;
}
