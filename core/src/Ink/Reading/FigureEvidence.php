<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading;

use Plinth\Core\Numerics\Logistic;

/** What speaks for a figure being read as it is written, with the right ends. */
final readonly class FigureEvidence
{
    /** Learnt from simulated sheets by bench/learn-figures.php, on seeds apart from those reported. */
    private const WEIGHTS = [
        '' => 3.85, 'read' => 0.26, 'span' => 1.54, 'apart' => 0.67, 'best' => 0.68, 'adds' => 1.22, 'addsNot' => 0.0, 'short' => -0.96,
        'little' => -0.15, 'scatter' => -0.25, 'many' => 0.95,
    ];
    /** characters of a short figure, which agrees by chance */
    private const SHORT = 3;
    /** heights of its lettering below which a span is little: it agrees with many figures */
    private const LITTLE = 5.0;
    /** px by which marks are off on a good sheet */
    private const GOOD_PX = 0.7;
    /** figures that agree from which more of them say no more */
    private const MANY = 10.0;

    /**
     * @param float $read logarithm of how likely the reading is
     * @param float $span logarithm of how likely it is that this is what it measures
     * @param float $off standard deviations by which it is off the others
     * @param bool $isBest whether no other reading is likelier
     * @param bool|null $adds whether the sums that it is part of add up; null where it is part of none
     * @param int $characters of the figure
     * @param float $long length of the span in heights of the lettering
     * @param float $px by which marks are off on this sheet
     * @param int $agreed figures that agree with each other
     */
    public function __construct(
        public float $read,
        public float $span,
        public float $off,
        public bool $isBest,
        public ?bool $adds,
        public int $characters,
        public float $long,
        public float $px,
        public int $agreed,
    ) {
    }

    /** @return array<string, float> by the names of the weights */
    public function values(): array
    {
        return [
            'read' => $this->read,
            'span' => $this->span,
            'apart' => -0.5 * $this->off ** 2,
            'best' => $this->isBest ? 1.0 : 0.0,
            'adds' => true === $this->adds ? 1.0 : 0.0,
            'addsNot' => false === $this->adds ? 1.0 : 0.0,
            'short' => $this->characters <= self::SHORT ? 1.0 : 0.0,
            'little' => $this->long < self::LITTLE ? 1.0 : 0.0,
            'scatter' => max(0.0, $this->px - self::GOOD_PX),
            'many' => min(1.0, $this->agreed / self::MANY),
        ];
    }

    /** @return float 0 to 1: on the sheets that it was learnt from so many with this evidence are right */
    public function confidence(): float
    {
        return Logistic::of(self::WEIGHTS, $this->values());
    }
}
