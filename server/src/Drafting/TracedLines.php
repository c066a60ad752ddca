<?php

declare(strict_types=1);

namespace Plinth\Server\Drafting;

use Plinth\Core\Geometry\PixelToMm;
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
            $workspace->set($line, ['line' => Places::carried((string) $line->values()['line'], $old, $next)], 'carry');
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
