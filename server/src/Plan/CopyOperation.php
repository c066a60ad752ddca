<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operation;
use Plinth\Server\Change\Workspace;

/** Walls, or all that is traced on a storey, copied to a storey. */
final readonly class CopyOperation implements Operation
{
    public function __construct(private WallsElsewhere $elsewhere)
    {
    }

    public static function name(): string
    {
        return 'copy';
    }

    public function apply(Workspace $workspace, JsonValue $wanted, Base $base): void
    {
        $this->elsewhere->copy($workspace, $wanted);
    }
}
