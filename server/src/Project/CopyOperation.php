<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operation;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;

/** What was drawn on a storey, or some of it, copied to a storey. */
final readonly class CopyOperation implements Operation
{
    public function __construct(private Drawn $drawn, private Elsewhere $elsewhere)
    {
    }

    public static function name(): string
    {
        return 'copy';
    }

    public function apply(Workspace $workspace, JsonValue $wanted, Base $base): void
    {
        $wanted->object(['storey', 'things', 'alone', 'to', 'by']);
        $rows = $this->drawn->meant($workspace, $wanted, 'storey');
        // Walls are often wanted without what is in them.
        $along = true !== $wanted->optional('alone')?->boolean();
        $by = $wanted->optional('by')?->pair() ?? [0.0, 0.0];
        $this->elsewhere->copy($workspace, $rows, RowValues::uuid($wanted->get('to')), $along, $by, $wanted->at);
    }
}
