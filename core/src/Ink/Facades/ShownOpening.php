<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Facades;

/** An opening that the picture of a side shows: from its left to its right jamb, and from its sill up to its head; mm on the side. */
final readonly class ShownOpening
{
    public const SURE = 0.5;
    /** what a confidence is then worth */
    private const DOUBTED = 0.45;

    /**
     * @param array{float, float, float, float} $sigmas standard deviations of left, right, sill and head as the picture shows them, mm
     * @param float $confidence 0 to 1, as learnt from simulated pictures; how far it holds on others is told in docs/accuracy.md
     */
    public function __construct(
        public float $left,
        public float $right,
        public float $sill,
        public float $head,
        public array $sigmas,
        public float $confidence,
    ) {
    }

    /** @return float ± of an edge, mm: so much that width and height, each between two of them, are told with their own ± */
    public function edgePlusMinus(): float
    {
        return 2.0 * max(hypot($this->sigmas[0], $this->sigmas[1]), hypot($this->sigmas[2], $this->sigmas[3])) / \M_SQRT2;
    }

    /** The same where it is not known what the picture is. */
    public function inDoubt(): self
    {
        return new self($this->left, $this->right, $this->sill, $this->head, $this->sigmas, self::DOUBTED * $this->confidence);
    }

    public function isSure(): bool
    {
        return $this->confidence >= self::SURE;
    }
}
