<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages;

use Plinth\Core\Ink\Pages\Internal\SlantOfLines;

/**
 * By how much a picture recedes, as its lines tell: those along one axis of the drawing converge where it recedes along them. In
 * coordinates with the page's centre as origin, y up and half its diagonal as unit, what was flat is seen divided by 1 + u·x + v·y.
 */
final readonly class Leaning
{
    /** radians that no two families of lines tell their angle better than; by trial */
    private const LEAST_ASKEW = 0.0003;

    /**
     * @param float $u by how much it recedes along u, and $v along v; 0 where its lines run alongside each other as far as can be told
     * @param float $sigma standard deviation of u and v
     * @param float $askew radians by which the angle from the lines across to those that run down exceeds a right one, counter-clockwise
     * @param float $sigmaAskew its standard deviation
     * @param float $turn of the lines across, radians counter-clockwise
     */
    private function __construct(
        public float $u,
        public float $v,
        public float $sigma,
        public float $askew,
        public float $sigmaAskew,
        public float $turn,
    ) {
    }

    /** @return self|null null where lines of one family only show */
    public static function of(SlantOfLines $slant): ?self
    {
        if (!$slant->byBoth) {
            return null;
        }
        [$turn, $askew, $u, $v] = $slant->p;
        $converges = $slant->converges();

        return new self(
            $converges ? $u : 0.0,
            $converges ? $v : 0.0,
            max($slant->sigma(2), $slant->sigma(3)),
            $askew,
            max(self::LEAST_ASKEW, $slant->sigma(1)),
            $turn,
        );
    }

    /** Whether the lines converge: it is a picture taken at a slant. */
    public function isSlanted(): bool
    {
        return 0.0 !== $this->u || 0.0 !== $this->v;
    }

    /** @return array{float, float, float, float, float, float} u, v and their standard deviation, askew and its own, turn */
    public function told(): array
    {
        return [$this->u, $this->v, $this->sigma, $this->askew, $this->sigmaAskew, $this->turn];
    }
}
