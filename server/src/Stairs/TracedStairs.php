<?php

declare(strict_types=1);

namespace Plinth\Server\Stairs;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Fit\Traced;
use Plinth\Server\Project\Places;
use Plinth\Server\Source\Drawing;

/** Walking lines and treads that were traced over a drawing. */
final readonly class TracedStairs implements Traced
{
    public function carry(Workspace $workspace, Drawing $drawing, PixelToMm $old, PixelToMm $next): void
    {
        foreach ($workspace->findBy(Stair::class, 'drawing', $drawing->id()) as $stair) {
            $workspace->set($stair, $stair->mapped(static function (Point $at, float $rise) use ($old, $next): array {
                $px = $old->toPixel($at);

                return [$next->toMm($px), $rise * $next->mmPerPixelAt($px) / $old->mmPerPixelAt($px)];
            }), 'carry');
        }
    }

    public function places(Workspace $workspace, Drawing $drawing): array
    {
        return array_map(static function (Stair $stair) use ($workspace): Point {
            $was = $workspace->was(Stair::class, $stair->id()) ?? $stair->values();
            $text = '' === $was['line'] ? explode('|', (string) $was['treads'])[0] : (string) $was['line'];

            return Places::read($text, 'line')[0][0];
        }, $workspace->findBy(Stair::class, 'drawing', $drawing->id()));
    }
}
