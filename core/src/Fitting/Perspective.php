<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\PixelToMm;

/**
 * A homography: what a camera makes of a flat drawing or wall. Parameters: those of Sheared at the page's centre, and by how much the
 * picture recedes along u and along v.
 *
 * What recedes is foreshortened as well, by 1 / cos t along its slant, and by how much hangs on the focal length alone: for a camera with
 * square pixels that looks along the page's centre, Aᵀ A is a multiple of I + f² g gᵀ. Stretch and shear count from there, and are small:
 * lines that converge and one length are enough to begin with, and statements that say more win over it.
 * Source: Hartley & Zisserman, Multiple View Geometry (from memory).
 */
final readonly class Perspective implements ShapeModel
{
    /**
     * By how much half the logarithm of the stretch, and the shear, may be off what the focal length gives: pictures cut off their middle,
     * copies that were stretched. By trial (bench untested).
     */
    private const OFF = 0.005;

    private Focal $focal;

    public function __construct(?Focal $focal = null)
    {
        $this->focal = $focal ?? Focal::usual();
    }

    public function model(): Model
    {
        return Model::Perspective;
    }

    public function parameters(): array
    {
        return ['scale', 'turn', 'stretch', 'shear', 'recedes', 'recedes'];
    }

    public function apply(array $parameters, float $u, float $v): array
    {
        [$x, $y] = $this->flat($parameters, $u, $v);
        $w = 1.0 + $parameters[4] * $u + $parameters[5] * $v;

        return [$x / $w, $y / $w];
    }

    /**
     * What it would be at the centre's depth: drawn out along the slant by 1 / cos t, over √ of that.
     *
     * @param list<float> $parameters
     *
     * @return array{float, float}
     */
    private function flat(array $parameters, float $u, float $v): array
    {
        [, , , , $g, $h] = $parameters;
        $leans = $g * $g + $h * $h;
        $longer = $this->longer($parameters);
        $more = $leans > 0.0 ? ($longer - 1.0) * ($g * $u + $h * $v) / $leans : 0.0;
        $even = sqrt($longer);

        return (new Sheared())->apply($parameters, ($u + $more * $g) / $even, ($v + $more * $h) / $even);
    }

    /**
     * 1 / cos t.
     *
     * @param list<float> $parameters
     */
    private function longer(array $parameters): float
    {
        return sqrt(1.0 + $this->focal->ratio ** 2 * ($parameters[4] ** 2 + $parameters[5] ** 2));
    }

    public function start(float $mmPerUnit, float $turnRad): array
    {
        return [log($mmPerUnit), $turnRad, 0.0, 0.0, 0.0, 0.0];
    }

    public function priors(array $parameters): array
    {
        $sigma = self::OFF + $this->focal->off * ($this->longer($parameters) - 1.0);

        return [2 => $sigma, 3 => $sigma];
    }

    public function pixelToMm(array $parameters, PageFrame $frame, float $centreX, float $centreY): PixelToMm
    {
        $unit = $frame->unitPx;
        $c = $frame->centre;
        // Derivatives by page pixels, which run down: (x − cx) / unit and (cy − y) / unit are the normalised coordinates.
        [$ax, $ay] = $this->flat($parameters, 1.0 / $unit, 0.0);
        [$bx, $by] = $this->flat($parameters, 0.0, -1.0 / $unit);
        $g = $parameters[4] / $unit;
        $h = -$parameters[5] / $unit;
        $w = 1.0 - $g * $c->x - $h * $c->y;

        return PixelToMm::ofMatrix([
            $ax + $centreX * $g, $bx + $centreX * $h, $centreX * $w - $ax * $c->x - $bx * $c->y,
            $ay + $centreY * $g, $by + $centreY * $h, $centreY * $w - $ay * $c->x - $by * $c->y,
            $g, $h, $w,
        ]);
    }
}
