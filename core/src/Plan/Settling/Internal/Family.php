<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling\Internal;

/**
 * Walls that are meant to run one way or at right angles to it. In its frame the first axis runs its way, the second to the left.
 *
 * @internal
 */
final readonly class Family
{
    /**
     * @param float $angle of its way, radians from the x axis
     * @param bool $isKnown its way is the grid's, one that set squares give, or one that most of it runs; else it is estimated
     * @param float $first the angle that it was put together by
     * @param array<array-key, int> $normals by wall: the axis along which all of the wall lies at one place, 0 or 1
     */
    private function __construct(public float $angle, public bool $isKnown, public float $first, public array $normals)
    {
    }

    /** @param array<array-key, int> $normals */
    public static function of(float $angle, bool $isKnown, array $normals): self
    {
        return new self($angle, $isKnown, $angle, $normals);
    }

    public function turnedBy(float $radians): self
    {
        return new self($this->angle + $radians, $this->isKnown, $this->first, $this->normals);
    }

    public function knownAt(float $angle): self
    {
        return new self($angle, true, $this->first, $this->normals);
    }

    /** @return array{float, float} unit vector of an axis */
    public function axis(int $axis): array
    {
        return 0 === $axis ? [cos($this->angle), sin($this->angle)] : [-sin($this->angle), cos($this->angle)];
    }
}
