<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

use Doctrine\DBAL\Connection;
use Plinth\Server\Change\Raw;
use Plinth\Server\Change\RowId;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Psr\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** Long work as people meet it: asked for, stopped, how far it is, and how much of it there is on this server. */
final readonly class WorkController
{
    private const ONE = '/api/projects/{project}/jobs/{kind}/{id}';

    /** @var array<string, AskedFor> */
    private array $kinds;

    /** @param iterable<JobKind> $kinds */
    public function __construct(
        private Connection $connection,
        private ClockInterface $clock,
        private Jobs $jobs,
        #[AutowireIterator('plinth.job')] iterable $kinds,
    ) {
        $askedFor = [];
        foreach ($kinds as $kind) {
            if ($kind instanceof AskedFor) {
                $askedFor[$kind::name()] = $kind;
            }
        }
        $this->kinds = $askedFor;
    }

    #[Needs(Who::Reader)]
    #[Route(self::ONE, methods: ['GET'])]
    public function progress(Uuid $project, string $kind, Uuid $id): Response
    {
        return new JsonResponse($this->jobs->of($this->kind($kind)::class, new RowId($project, $id))->describe());
    }

    #[Needs(Who::Editor)]
    #[Route(self::ONE, methods: ['POST'])]
    public function ask(Uuid $project, string $kind, Uuid $id): Response
    {
        $asked = $this->kind($kind);
        $about = new RowId($project, $id);

        return new JsonResponse($this->jobs->want($asked::class, $about, $asked->basis($about))->describe(), Response::HTTP_ACCEPTED);
    }

    #[Needs(Who::Editor)]
    #[Route(self::ONE.'/stop', methods: ['POST'])]
    public function stop(Uuid $project, string $kind, Uuid $id): Response
    {
        return new JsonResponse($this->jobs->stop($this->kind($kind)::class, new RowId($project, $id))->describe());
    }

    private function kind(string $name): AskedFor
    {
        return $this->kinds[$name] ?? throw Refusal::notFound();
    }

    /** For whoever wonders whether anything goes on. */
    #[Needs(Who::SignedIn)]
    #[Route('/api/work', methods: ['GET'])]
    public function show(): Response
    {
        $row = $this->connection->fetchNumeric(
            'SELECT COUNT(*), COALESCE(SUM(held_until >= ?), 0), COALESCE(MAX(held_until), 0), (SELECT COALESCE(MAX(served), 0) FROM job_turn) FROM job WHERE state IN (?, ?)',
            [$this->clock->now()->getTimestamp(), JobState::Waiting->value, JobState::Working->value],
        );
        [$all, $held, $until, $served] = array_map(
            static fn (mixed $v): int => (int) Raw::number($v),
            false === $row ? [0, 0, 0, 0] : $row,
        );

        return new JsonResponse([
            'waiting' => $all - $held,
            'working' => $held,
            'begun' => $served,
            'alive' => 0 === $until ? 0 : $until - Attempt::LEASE,
        ]);
    }
}
