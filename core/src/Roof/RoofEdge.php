<?php

declare(strict_types=1);

namespace Plinth\Core\Roof;

use Plinth\Core\Roof\Exception\UnbuildableRoof;

/** What rises over one edge of a roof's outline: a slope from its eaves, or a gable that stands upright. */
final readonly class RoofEdge
{
    private const FLATTEST_DEG = 0.5;
    private const STEEPEST_DEG = 85.0;

    /** @param float $steepness rise over run; 0 for a gable */
    private function __construct(public float $steepness, public float $eavesMm)
    {
    }

    /**
     * @param float $degrees from the level
     *
     * @throws UnbuildableRoof for what is nearly level or nearly upright
     */
    public static function pitched(float $degrees, float $eavesMm = 0.0): self
    {
        if (!($degrees >= self::FLATTEST_DEG && $degrees <= self::STEEPEST_DEG)) {
            throw UnbuildableRoof::pitch($degrees, self::FLATTEST_DEG, self::STEEPEST_DEG);
        }

        return new self(tan(deg2rad($degrees)), $eavesMm);
    }

    public static function gable(): self
    {
        return new self(0.0, \INF);
    }

    public function isGable(): bool
    {
        return 0.0 === $this->steepness;
    }
}
