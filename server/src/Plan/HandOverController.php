<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\DBAL\Connection;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\Storey;
use Plinth\Server\SettingOut\Surroundings;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

#[Route('/api/projects/{project}/storeys/{id}')]
final readonly class HandOverController
{
    private const UNTRUED = 'Sizes are a guess: a drawing that this was traced over is not trued up.';

    public function __construct(
        private ProjectAccess $access,
        private PlanKeeper $plans,
        private Surroundings $surroundings,
        private Connection $connection,
    ) {
    }

    #[Needs(Who::Reader)]
    #[Route('/plan.dxf', methods: ['GET'], format: 'dxf')]
    public function dxf(Uuid $project, Uuid $id): Response
    {
        $row = $this->access->row(Storey::class, $project, $id);
        $storey = $this->plans->load($row->key());

        $project = $this->access->project($row->project());
        $dxf = DxfWriter::write(
            $storey,
            Derivation::of($storey),
            $this->surroundings->of($row),
            $project->shows(),
            $this->remarks($row),
            $project->areas(),
        );

        return $this->file($dxf, 'image/vnd.dxf', $row, 'dxf');
    }

    #[Needs(Who::Reader)]
    #[Route('/plan.json', methods: ['GET'])]
    public function document(Uuid $project, Uuid $id): Response
    {
        $row = $this->access->row(Storey::class, $project, $id);
        $json = json_encode(
            PlanWriter::document(new Plan([$this->plans->load($row->key())]), $this->remarks($row)),
            \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRETTY_PRINT,
        );

        return $this->file($json, 'application/json', $row, 'json');
    }

    /** @return list<string> nothing untrued is handed over without saying so */
    private function remarks(Storey $storey): array
    {
        $guessed = $this->connection->fetchOne(
            'SELECT 1 FROM node n JOIN fit f ON f.project = n.project AND f.id = n.drawing WHERE n.project = ? AND n.storey = ? AND f.plus_minus_mm_per10m IS NULL LIMIT 1',
            $storey->key()->binary(),
        );

        return false === $guessed ? [] : [self::UNTRUED];
    }

    private function file(string $content, string $type, Storey $storey, string $suffix): Response
    {
        $name = trim(
            (string) preg_replace(
                '/[^A-Za-z0-9]+/',
                '-',
                (string) iconv('UTF-8', 'ASCII//TRANSLIT//IGNORE', $this->access->project($storey->project())->name().' '.$storey->name()),
            ),
            '-',
        );

        return new Response($content, 200, [
            'Content-Type' => $type,
            'Cache-Control' => 'no-store',
            'Content-Disposition' => HeaderUtils::makeDisposition(
                HeaderUtils::DISPOSITION_ATTACHMENT,
                ('' === $name ? 'plan' : strtolower($name)).'.'.$suffix,
            ),
        ]);
    }
}
