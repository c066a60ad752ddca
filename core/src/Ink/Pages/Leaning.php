<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages;

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Pages\Internal\SlantedView;
use Plinth\Core\Ink\Pages\Internal\SlantOfLines;

/**
 * By how much a picture recedes, as its lines tell: those along one axis of the drawing converge where it recedes along them. In
 * coordinates with the page's centre as origin, y up and half its diagonal as unit, what was flat is seen divided by 1 + u·x + v·y.
 */
final readonly class Leaning
{
    /** parts of the drawing's width or height from its middle that lines are laid at, and reach */
    private const REACH = 0.4;
    private const TOLD = ['u', 'v', 'sigma', 'askew', 'sigmaAskew', 'turn'];
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

    /** @param array<string, float> $told as told() gives it; what was told in another form says nothing */
    public static function from(array $told): ?self
    {
        return self::TOLD === array_keys($told) ? new self(...$told) : null;
    }

    /** Whether the lines converge: it is a picture taken at a slant. */
    public function isSlanted(): bool
    {
        return 0.0 !== $this->u || 0.0 !== $this->v;
    }

    /**
     * Lines that run as the drawing's own do, three of each family where it lies: together they say what all pieces of its lines said.
     *
     * @param PixelBox $box where the drawing lies on its page
     *
     * @return list<LeaningLine>
     */
    public function lines(PixelBox $box, float $width, float $height): array
    {
        $unit = hypot($width, $height) / 2.0;
        $view = new SlantedView($this->turn, $this->u, $this->v);
        // The middle of the drawing as it is, not as it is seen; and where a place of it is seen.
        [$a0, $b0] = $view->flat(($box->centre()->x - $width / 2.0) / $unit, ($height / 2.0 - $box->centre()->y) / $unit);
        $seen = static function (float $a, float $b) use ($view, $unit, $width, $height): PixelPoint {
            [$u, $v] = $view->seen($a, $b);

            return new PixelPoint($width / 2.0 + $unit * $u, $height / 2.0 - $unit * $v);
        };
        // Lines down keep a + askew · b.
        $down = fn (float $a, float $b): PixelPoint => $seen($a - $this->askew * ($b - $b0), $b);
        [$right, $up] = [self::REACH * $box->width / $unit, self::REACH * $box->height / $unit];
        $sigma = max($this->sigma * self::REACH, $this->sigmaAskew);
        $lines = [];
        foreach ([-1.0, 0.0, 1.0] as $side) {
            foreach ([
                [$seen($a0 - $right, $b0 + $side * $up), $seen($a0 + $right, $b0 + $side * $up), false],
                [$down($a0 + $side * $right, $b0 - $up), $down($a0 + $side * $right, $b0 + $up), true],
            ] as [$a, $b, $runsDown]) {
                // Two ends that scatter by s turn the line between them by √2 s over its length.
                $lines[] = new LeaningLine($a, $b, $runsDown, $sigma * $a->distanceTo($b) / \M_SQRT2);
            }
        }

        return $lines;
    }

    /** @return array{u: float, v: float, sigma: float, askew: float, sigmaAskew: float, turn: float} */
    public function told(): array
    {
        return [
            'u' => $this->u, 'v' => $this->v, 'sigma' => $this->sigma,
            'askew' => $this->askew, 'sigmaAskew' => $this->sigmaAskew, 'turn' => $this->turn,
        ];
    }
}
