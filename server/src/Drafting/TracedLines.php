<?php

declare(strict_types=1);

namespace Plinth\Server\Drafting;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Fit\Traced;
use Plinth\Server\Project\Places;
use Plinth\Server\Source\Drawing;

/** Lines that were drawn over a drawing. */
final readonly class TracedLines implements Traced
{
    public function carry(Workspace $workspace, Drawing $drawing, PixelToMm $old, PixelToMm $next): void
    {
        foreach ($workspace->findBy(DrawnLine::class, 'drawing', $drawing->id()) as $line) {
            $text = Places::mapped((string) $line->values()['line'], static function (Point $at, float $rise) use ($old, $next): array {
                $px = $old->toPixel($at);

                return [$next->toMm($px), $rise * $next->mmPerPixelAt($px) / $old->mmPerPixelAt($px)];
            });
            $workspace->set($line, ['line' => $text], 'carry');
        }
    }

    public function places(Workspace $workspace, Drawing $drawing): array
    {
        $places = [];
        foreach ($workspace->findBy(DrawnLine::class, 'drawing', $drawing->id()) as $line) {
            $was = $workspace->was(DrawnLine::class, $line->id()) ?? $line->values();
            array_push($places, ...array_column(Places::read((string) $was['line'], 'line'), 0));
        }

        return $places;
    }
}
