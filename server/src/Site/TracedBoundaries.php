<?php

declare(strict_types=1);

namespace Plinth\Server\Site;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Fit\Traced;
use Plinth\Server\Source\Drawing;

/** Where boundaries begin that were begun on a drawing. Their legs stay as they are written. */
final readonly class TracedBoundaries implements Traced
{
    public function carry(Workspace $workspace, Drawing $drawing, PixelToMm $old, PixelToMm $next): void
    {
        foreach ($workspace->findBy(Boundary::class, 'drawing', $drawing->id()) as $boundary) {
            $to = $next->toMm($old->toPixel($boundary->from()));
            $workspace->set($boundary, ['x' => $to->x, 'y' => $to->y], 'carry');
        }
    }

    public function places(Workspace $workspace, Drawing $drawing): array
    {
        return array_map(static function (Boundary $boundary) use ($workspace): Point {
            $at = $workspace->was(Boundary::class, $boundary->id()) ?? $boundary->values();

            return new Point((float) $at['x'], (float) $at['y']);
        }, $workspace->findBy(Boundary::class, 'drawing', $drawing->id()));
    }
}
