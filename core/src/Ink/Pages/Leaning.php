<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages;

use Plinth\Core\Ink\Pages\Internal\Directions;

/**
 * By how much a picture recedes, as its lines tell: those along one axis of the drawing converge where it recedes along them. In
 * coordinates with the page's centre as origin, y up and half its diagonal as unit, what was flat is seen divided by 1 + u·x + v·y.
 */
final readonly class Leaning
{
    /** standard deviations beyond which lines converge, and not only by chance; and the least that can be told apart */
    private const SURE = 4.0;
    private const LEAST = 0.002;
    /** no measurement of lines tells better, units as above: paper is never quite flat, lines never quite straight; by trial */
    private const LEAST_SIGMA = 0.0005;

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

    /**
     * From lines whose direction turns by e over each pixel at a right angle to them: the picture recedes by e a pixel along them.
     *
     * @param float $degrees of the drawing's first axis, clockwise as seen
     * @param float $unit half the page's diagonal, px
     */
    public static function of(Directions $across, Directions $down, float $degrees, float $unit): self
    {
        [$alongX, $sigmaX] = $across->change($degrees);
        [$alongY, $sigmaY] = $down->change($degrees);
        [$c, $s] = [cos(deg2rad($degrees)), sin(deg2rad($degrees))];
        // Page pixels run down, the coordinates up.
        [$u, $v] = [$unit * ($alongX * $c - $alongY * $s), -$unit * ($alongX * $s + $alongY * $c)];
        $sigma = max(self::LEAST_SIGMA, $unit * max($sigmaX, $sigmaY));
        $isSlanted = hypot($u, $v) > max(self::LEAST, self::SURE * $sigma);

        return new self(
            $isSlanted ? $u : 0.0,
            $isSlanted ? $v : 0.0,
            $sigma,
            deg2rad($across->middle - $down->middle),
            max(self::LEAST_ASKEW, deg2rad(hypot($across->sigmaMiddle, $down->sigmaMiddle))),
            -deg2rad($degrees),
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
