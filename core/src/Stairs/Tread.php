<?php

declare(strict_types=1);

namespace Plinth\Core\Stairs;

/** One step of a stair in plan: what is trodden on between two risers. */
final readonly class Tread
{
    /**
     * @param int $number from 1, the first above the floor; its own height over that is so many rises
     * @param non-empty-list<array{float, float}> $ring mm, counter-clockwise
     * @param non-empty-list<array{float, float}> $left its left edge going up, from the riser below it to the one above
     * @param non-empty-list<array{float, float}> $right its right edge
     * @param float $going mm along the walking line
     * @param bool $isStraight whether its risers run alongside each other, as in a straight flight
     */
    public function __construct(
        public int $number,
        public array $ring,
        public array $left,
        public array $right,
        public float $going,
        public bool $isLanding = false,
        public bool $isStraight = false,
    ) {
    }

    /** @return array{array{float, float}, array{float, float}} the riser below it, from its left end to its right */
    public function below(): array
    {
        return [$this->left[0], $this->right[0]];
    }

    /** @return array{array{float, float}, array{float, float}} the riser above it */
    public function above(): array
    {
        return [$this->left[\count($this->left) - 1], $this->right[\count($this->right) - 1]];
    }
}
