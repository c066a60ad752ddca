<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operation;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Source\Drawing;

/** All that is stated about a drawing put back to what it was at a revision. */
final readonly class GoBackOperation implements Operation
{
    public function __construct(private FitHistory $history)
    {
    }

    public static function name(): string
    {
        return 'goBack';
    }

    public function apply(Workspace $workspace, JsonValue $wanted, Base $base): void
    {
        $wanted->object(['drawing', 'revision']);
        $drawing = $workspace->current(Drawing::class, RowValues::uuid($wanted->get('drawing')), $base, $wanted->at.'/drawing');
        $this->history->goBack($workspace, $drawing, $wanted->get('revision')->count(), $wanted->at);
    }
}
