<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Plan\Settling\StoreySettled;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operation;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Project\Storey;
use Symfony\Component\Uid\Uuid;

/** Settles a storey: its nodes go where they all hold best; openings keep their place in the building. */
final readonly class SettleOperation implements Operation
{
    public static function name(): string
    {
        return 'settle';
    }

    public function apply(Workspace $workspace, JsonValue $settle, Base $base): void
    {
        $settle->object(['storey']);
        $storey = $workspace->get(Storey::class, RowValues::uuid($settle->get('storey')))->key();
        [$walls, $nodes] = SettlesStoreys::walls($workspace->connection(), $storey);
        $settled = SettlesStoreys::settled($workspace->connection(), $storey);
        $moves = [];
        foreach ($settled->moves as $node => $to) {
            $moves[Uuid::fromString($node)->toBinary()] = $to;
        }
        StoreyWalls::move($workspace, $moves, $base, $settle->at);
        foreach ($walls as $joined) {
            $from = $settled->moves[$joined->from] ?? null;
            if (null === $from) {
                continue;
            }
            $along = StoreySettled::along($nodes[$joined->from], $from, $settled->moves[$joined->to] ?? $nodes[$joined->to]);
            foreach (abs($along) < 1e-9 ? [] : $workspace->findBy(
                Opening::class,
                'wall',
                Uuid::fromString($joined->wall->id),
            ) as $opening) {
                $workspace->set($opening, ['offset' => $opening->offset() + $along], $settle->at);
            }
        }
    }
}
