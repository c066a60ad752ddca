<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\DBAL\Connection;
use Plinth\Core\Plan\Settling\Contradiction;
use Plinth\Core\Plan\Settling\Unheld;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\Storey;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** What settling a storey would do; nothing is moved by asking. */
final readonly class SettleController
{
    public function __construct(private ProjectAccess $access, private Connection $connection)
    {
    }

    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/storeys/{id}/settled', methods: ['GET'])]
    public function show(Uuid $project, Uuid $id): Response
    {
        $storey = $this->access->row(Storey::class, $project, $id);
        [, $nodes] = SettlesStoreys::walls($this->connection, $storey->key());
        $settled = SettlesStoreys::settled($this->connection, $storey->key());
        $moves = [];
        foreach ($settled->moves as $node => $to) {
            $moves[] = ['node' => $node, 'x' => $to->x, 'y' => $to->y, 'byMm' => $to->distanceTo($nodes[$node])];
        }

        return new JsonResponse([
            'moves' => $moves,
            'largestMm' => $settled->largestMm,
            'farthest' => $settled->farthest,
            'straightened' => $settled->straightened,
            'held' => $settled->held,
            'contradictions' => array_map(
                static fn (Contradiction $c): array => [
                    'figure' => $c->figure,
                    'chain' => $c->chain,
                    'byMm' => $c->byMm,
                    'culprit' => $c->culprit,
                ],
                $settled->contradictions,
            ),
            'unheld' => array_map(
                static fn (Unheld $u): array => ['figure' => $u->figure, 'why' => $u->why->value, 'degrees' => $u->degrees],
                $settled->unheld,
            ),
        ]);
    }
}
