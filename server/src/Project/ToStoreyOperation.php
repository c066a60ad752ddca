<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operation;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;

/** What was drawn on a storey, or some of it, moved to another storey. */
final readonly class ToStoreyOperation implements Operation
{
    public function __construct(private Drawn $drawn, private Elsewhere $elsewhere)
    {
    }

    public static function name(): string
    {
        return 'toStorey';
    }

    public function apply(Workspace $workspace, JsonValue $wanted, Base $base): void
    {
        $wanted->object(['from', 'things', 'storey']);
        $rows = $this->drawn->meant($workspace, $wanted, 'from');
        $this->elsewhere->move($workspace, $rows, RowValues::uuid($wanted->get('storey')), $base, $wanted->at);
    }
}
