<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Facades\Internal;

/**
 * What may be an opening, as the raster shows it; mm on the side.
 *
 * @internal
 */
final readonly class Candidate
{
    /**
     * What each kind of evidence weighs, by logistic regression over simulated pictures; of a drawing how wide and high it is, as of a
     * photograph: its houses are too wide to be looked at.
     */
    private const WEIGHTS = [
        'photograph' => [
            '' => -4.83, 'jambs' => 1.07, 'strength' => -0.29, 'sill' => 0.65, 'head' => 0.6, 'beyond' => -1.0, 'ends' => 0.25,
            'gap' => -7.79, 'outside' => -0.18, 'inside' => 0.25, 'narrow' => -5.82, 'wide' => -2.73, 'low' => -3.54, 'high' => -1.46,
        ],
        'drawing' => [
            '' => -4.56, 'jambs' => -0.59, 'strength' => 0.0, 'sill' => 1.83, 'head' => 2.8, 'beyond' => -0.28, 'ends' => 0.0,
            'gap' => -8.49, 'outside' => -6.78, 'inside' => 0.0, 'narrow' => -1.69, 'wide' => -2.5, 'low' => -2.33, 'high' => -1.4,
        ],
    ];

    /** how likely, as far as it alone says: the logarithm of the odds */
    public float $odds;

    /**
     * @param array<string, float> $evidence
     * @param float $others what others say for it
     */
    public function __construct(
        public float $left,
        public float $right,
        public float $sill,
        public float $head,
        public array $evidence,
        private bool $isPhotograph,
        float $others = 0.0,
    ) {
        $weights = self::WEIGHTS[$isPhotograph ? 'photograph' : 'drawing'];
        $sum = $weights[''];
        foreach ($evidence as $kind => $value) {
            $sum += $weights[$kind] * $value;
        }
        $this->odds = $sum + $others;
    }

    /** The same, where others say so much for it. */
    public function with(float $others): self
    {
        return new self($this->left, $this->right, $this->sill, $this->head, $this->evidence, $this->isPhotograph, $others);
    }

    /** @return array{left: float, right: float, sill: float, head: float} */
    public function edges(): array
    {
        return ['left' => $this->left, 'right' => $this->right, 'sill' => $this->sill, 'head' => $this->head];
    }

    public function areaMm2(): float
    {
        return ($this->right - $this->left) * ($this->head - $this->sill);
    }

    /** Whether another one lies in it, give or take so many mm. */
    public function holds(self $other, float $give): bool
    {
        return $this->left < $other->left + $give && $this->right > $other->right - $give
            && $this->sill < $other->sill + $give && $this->head > $other->head - $give;
    }
}
