<?php

declare(strict_types=1);

namespace Plinth\Server\Building;

use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Bodies\ShownStair;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Stairs\StairPlan;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Plan\HandedOver;
use Plinth\Server\Plan\PlanKeeper;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\Storey;
use Plinth\Server\SettingOut\Surroundings;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** A storey as a drawing, with the stairs that go up from it and those that arrive. */
#[Route('/api/projects/{project}/storeys/{id}')]
final readonly class DxfController
{
    public function __construct(
        private ProjectAccess $access,
        private PlanKeeper $plans,
        private BuildingPlan $building,
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
            $this->stairs($row),
        );

        return $this->handedOver->file($dxf, 'image/vnd.dxf', $project, $row->name(), 'dxf');
    }

    /** @return list<StairPlan> */
    private function stairs(Storey $row): array
    {
        $of = (new BuildingBodies($this->building->of($row->project(), $row->id())))->storey($row->id()->toRfc4122());

        return array_map(static fn (ShownStair $s): StairPlan => $s->plan, $of->stairsShown());
    }
}
