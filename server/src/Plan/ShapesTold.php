<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Server\Project\Storey;
use Plinth\Server\Project\Teller;
use Plinth\Server\Project\Telling;
use Symfony\Component\Uid\Uuid;

/** Shapes that are derived from walls, storey by storey: all of them, or those that differ. */
final readonly class ShapesTold implements Teller
{
    public function __construct(private DerivedShapes $shapes)
    {
    }

    public static function name(): string
    {
        return 'derived';
    }

    public function tell(Telling $about): string
    {
        $project = $about->project;
        $whole = $about->storeys ?? array_map(static fn (Storey $s): Uuid => $s->id(), $about->rowsOf(Storey::class));
        $told = array_map(fn (Uuid $s): string => $this->shapes->json($project->beside($s), null), $whole);
        foreach (null === $about->since ? [] : $this->shapes->changedSince($project->id(), $about->since) as $storey) {
            if ([] === array_filter($whole, $storey->equals(...))) {
                $told[] = $this->shapes->json($project->beside($storey), $about->since);
            }
        }

        return '['.implode(',', $told).']';
    }
}
