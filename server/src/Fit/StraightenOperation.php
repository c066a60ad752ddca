<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operation;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Page;

/** A photograph straightened by its own lines. */
final readonly class StraightenOperation implements Operation
{
    public static function name(): string
    {
        return 'straighten';
    }

    public function apply(Workspace $workspace, JsonValue $wanted, Base $base): void
    {
        $wanted->object(['drawing']);
        $drawing = $workspace->current(Drawing::class, RowValues::uuid($wanted->get('drawing')), $base, $wanted->at.'/drawing');
        $leaning = $workspace->get(Page::class, $drawing->page())->leaning();
        if (true !== $leaning?->isSlanted()) {
            throw Refusal::invalid(
                'no-slant',
                'Its lines do not say that it leans: run lines with the grid at all four sides, or state a known rectangle.',
                $wanted->at.'/drawing',
            );
        }
        LinesStated::of($workspace, $drawing, $leaning, $wanted->at);
    }
}
