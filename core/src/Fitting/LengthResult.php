<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

/** What a known length turned out to be under the fit. */
final readonly class LengthResult
{
    /**
     * @param float $fittedMm what it reads between its picks as picked
     * @param float $residualMm fitted minus true
     * @param float $plusMinusMm two standard deviations of the reading, picks included; of a check length, of the difference fitted minus
     *                           true
     * @param float $redundancy 0: nothing checks it, 1: it adds nothing; 1 for a check length
     * @param float $w standardised residual
     */
    public function __construct(
        public string $id,
        public float $fittedMm,
        public float $residualMm,
        public float $plusMinusMm,
        public float $redundancy,
        public float $w,
        public bool $suspect,
    ) {
    }
}
