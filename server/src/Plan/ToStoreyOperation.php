<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operation;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;

/** Walls moved to another storey. */
final readonly class ToStoreyOperation implements Operation
{
    public function __construct(private WallsElsewhere $elsewhere)
    {
    }

    public static function name(): string
    {
        return 'toStorey';
    }

    public function apply(Workspace $workspace, JsonValue $wanted, Base $base): void
    {
        $wanted->object(['walls', 'storey']);
        $this->elsewhere->move($workspace, $wanted->list('walls'), RowValues::uuid($wanted->get('storey')), $base, $wanted->at);
    }
}
