<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls;

use Plinth\Core\Numerics\Logistic;

/** What speaks for a gap in a proposed wall being a door, a window or an opening. */
final readonly class OpeningEvidence
{
    /** Learnt from simulated sheets by bench/learn.php, on seeds apart from those reported. */
    private const WEIGHTS = [
        '' => -7.65, 'gap' => 2.27, 'jamb' => 5.4, 'fromEnd' => 2.74, 'unusual' => -1.24, 'lined' => -1.31, 'wall' => 2.92, 'solid' => 0.6,
        'gapAndJamb' => 1.75,
    ];
    /** mm: the most usual width; common practice, no source */
    private const WIDTH_MM = 1200.0;
    /** mm from the wall's end that are enough: nearer, a gap may be another wall that ends there */
    private const FROM_END_MM = 500.0;

    /**
     * @param bool $isGap whether the page itself shows the gap with both its jambs
     * @param float $jamb how plain the weaker jamb is, 0 to 1
     * @param float $fromEnd mm from the nearer end of the wall
     * @param float $width mm
     * @param bool $isLined whether lines run through it, as a window's
     * @param float $wall confidence of its wall
     * @param bool $isInSolid whether the wall is filled with full ink
     */
    public function __construct(
        public bool $isGap,
        public float $jamb,
        public float $fromEnd,
        public float $width,
        public bool $isLined,
        public float $wall,
        public bool $isInSolid,
    ) {
    }

    /** @return array<string, float> by the names of the weights */
    public function values(): array
    {
        return [
            'gap' => $this->isGap ? 1.0 : 0.0,
            'jamb' => $this->jamb,
            'fromEnd' => min(1.0, max(0.0, $this->fromEnd) / self::FROM_END_MM),
            'unusual' => log(max(1.0, $this->width) / self::WIDTH_MM) ** 2,
            'lined' => $this->isLined ? 1.0 : 0.0,
            'wall' => $this->wall,
            'solid' => $this->isInSolid ? 1.0 : 0.0,
            'gapAndJamb' => $this->isGap ? $this->jamb : 0.0,
        ];
    }

    /** @return float 0 to 1: on the sheets that it was learnt from so many with this evidence are openings */
    public function confidence(): float
    {
        return Logistic::of(self::WEIGHTS, $this->values());
    }
}
