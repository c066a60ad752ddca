<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\Storey;
use Plinth\Server\SettingOut\Surroundings;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

#[Route('/api/projects/{project}/storeys/{id}')]
final readonly class HandOverController
{
    public function __construct(
        private ProjectAccess $access,
        private PlanKeeper $plans,
        private Surroundings $surroundings,
        private HandedOver $handedOver,
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
            $this->handedOver->remarks($row),
            $project->areas(),
        );

        return $this->handedOver->file($dxf, 'image/vnd.dxf', $project, $row, 'dxf');
    }
}
