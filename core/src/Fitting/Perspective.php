<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\PixelToMm;

/**
 * A homography: what a camera makes of a flat drawing or wall. Parameters: those of Sheared at the page's centre, and by how much the
 * picture recedes along u and along v. Source: Hartley & Zisserman, Multiple View Geometry (from memory).
 */
final readonly class Perspective implements ShapeModel
{
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
        [$x, $y] = (new Sheared())->apply($parameters, $u, $v);
        $w = 1.0 + $parameters[4] * $u + $parameters[5] * $v;

        return [$x / $w, $y / $w];
    }

    public function start(float $mmPerUnit, float $turnRad): array
    {
        return [log($mmPerUnit), $turnRad, 0.0, 0.0, 0.0, 0.0];
    }

    public function priors(): array
    {
        return [];
    }

    public function pixelToMm(array $parameters, PageFrame $frame, float $centreX, float $centreY): PixelToMm
    {
        $linear = new Sheared();
        $unit = $frame->unitPx;
        $c = $frame->centre;
        // Derivatives by page pixels, which run down: (x − cx) / unit and (cy − y) / unit are the normalised coordinates.
        [$ax, $ay] = $linear->apply($parameters, 1.0 / $unit, 0.0);
        [$bx, $by] = $linear->apply($parameters, 0.0, -1.0 / $unit);
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
