<?php

declare(strict_types=1);

namespace Plinth\Server\Elevation;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Fit\Traced;
use Plinth\Server\Source\Drawing;

/** Corners of outlines that were traced over a drawing. */
final readonly class TracedOutlines implements Traced
{
    public function carry(Workspace $workspace, Drawing $drawing, PixelToMm $old, PixelToMm $next): void
    {
        foreach ($workspace->findBy(OutlineCorner::class, 'drawing', $drawing->id()) as $corner) {
            $px = $old->toPixel($corner->at());
            $to = $next->toMm($px);
            $rise = $corner->rise() * $next->mmPerPixelAt($px) / $old->mmPerPixelAt($px);
            $workspace->set($corner, ['x' => $to->x, 'y' => $to->y, 'rise' => $rise], 'carry');
        }
    }

    public function places(Workspace $workspace, Drawing $drawing): array
    {
        return array_map(static function (OutlineCorner $corner) use ($workspace): Point {
            $at = $workspace->was(OutlineCorner::class, $corner->id()) ?? $corner->values();

            return new Point((float) $at['x'], (float) $at['y']);
        }, $workspace->findBy(OutlineCorner::class, 'drawing', $drawing->id()));
    }
}
