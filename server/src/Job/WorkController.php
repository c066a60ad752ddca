<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

use Doctrine\DBAL\Connection;
use Plinth\Server\Change\Raw;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;

/** How much long work there is on this server, for whoever wonders whether anything goes on. */
final readonly class WorkController
{
    public function __construct(private Connection $connection, private ClockInterface $clock)
    {
    }

    #[Needs(Who::SignedIn)]
    #[Route('/api/work', methods: ['GET'])]
    public function show(): Response
    {
        $row = $this->connection->fetchNumeric('SELECT COUNT(*), COALESCE(SUM(held_until >= ?), 0), COALESCE(MAX(held_until), 0), (SELECT COALESCE(MAX(served), 0) FROM job_turn) FROM job', [$this->clock->now()->getTimestamp()]);
        [$all, $held, $until, $served] = array_map(static fn (mixed $v): int => (int) Raw::number($v), false === $row ? [0, 0, 0, 0] : $row);

        return new JsonResponse(['waiting' => $all - $held, 'working' => $held, 'begun' => $served, 'alive' => 0 === $until ? 0 : $until - Attempt::LEASE]);
    }
}
