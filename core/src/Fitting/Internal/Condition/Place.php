<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Internal\Condition;

use Plinth\Core\Fitting\Internal\Condition;

/**
 * One coordinate of a pick's place in the model is known.
 *
 * @internal
 */
final readonly class Place implements Condition
{
    public function __construct(private string $pick, private bool $isX, private float $mm)
    {
    }

    public function picks(): array
    {
        return [$this->pick];
    }

    public function figures(): array
    {
        return [];
    }

    public function isPlaced(): bool
    {
        return true;
    }

    public function of(array $at): array
    {
        return [$at[0][$this->isX ? 0 : 1] - $this->mm, [$this->isX ? [1.0, 0.0] : [0.0, 1.0]]];
    }
}
