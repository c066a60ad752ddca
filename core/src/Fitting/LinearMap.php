<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\PixelToMm;

/** The matrix of a linear shape model, read off where the two units of the normalised page go. */
final class LinearMap
{
    /** @param list<float> $parameters */
    public static function pixelToMm(ShapeModel $model, array $parameters, PageFrame $frame, float $centreX, float $centreY): PixelToMm
    {
        [$a, $d] = $model->apply($parameters, 1.0 / $frame->unitPx, 0.0);
        // Pixels run down, the normalised page up.
        [$b, $e] = $model->apply($parameters, 0.0, -1.0 / $frame->unitPx);
        $c = $frame->centre;

        return PixelToMm::ofMatrix([$a, $b, $centreX - $a * $c->x - $b * $c->y, $d, $e, $centreY - $d * $c->x - $e * $c->y, 0.0, 0.0, 1.0]);
    }
}
