<?php

declare(strict_types=1);

namespace Plinth\Server\Enclosure;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Fit\Traced;
use Plinth\Server\Project\Places;
use Plinth\Server\Source\Drawing;

/** Outlines of enclosures that were traced over a drawing. */
final readonly class TracedEnclosures implements Traced
{
    public function carry(Workspace $workspace, Drawing $drawing, PixelToMm $old, PixelToMm $next): void
    {
        foreach ($workspace->findBy(Enclosure::class, 'drawing', $drawing->id()) as $enclosure) {
            $workspace->set($enclosure, ['line' => Places::carried((string) $enclosure->values()['line'], $old, $next)], 'carry');
        }
    }

    public function places(Workspace $workspace, Drawing $drawing): array
    {
        $places = [];
        foreach ($workspace->findBy(Enclosure::class, 'drawing', $drawing->id()) as $enclosure) {
            $was = $workspace->was(Enclosure::class, $enclosure->id()) ?? $enclosure->values();
            array_push($places, ...array_column(Places::read((string) $was['line'], 'line'), 0));
        }

        return $places;
    }
}
