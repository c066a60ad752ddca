<?php

declare(strict_types=1);

namespace Plinth\Server\Building;

use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Bodies\BuildingQuantity;
use Plinth\Core\Bodies\FinishedSurface;
use Plinth\Core\Bodies\Refused;
use Plinth\Core\Exchange\BodiesDocument\BodiesWriter;
use Plinth\Core\Exchange\Csv\CsvTable;
use Plinth\Core\Exchange\Gltf\GlbWriter;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Exchange\Tables\BuildingTables;
use Plinth\Core\Plan\Derivation\BodyOutline;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Storey as CoreStorey;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Plan\HandedOver;
use Plinth\Server\Plan\PlanKeeper;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\Storey;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Symfony\Contracts\Cache\CacheInterface;

/** The building as it stands: bodies of a storey, and what is handed over of all of it. */
#[Route('/api/projects/{project}')]
final readonly class BuildingController
{
    public function __construct(
        private ProjectAccess $access,
        private BuildingPlan $building,
        private PlanKeeper $plans,
        private HandedOver $handedOver,
        private CacheInterface $cache,
    ) {
    }

    #[Needs(Who::Reader)]
    #[Route('/storeys/{id}/bodies', methods: ['GET'])]
    public function bodies(Uuid $project, Uuid $id): Response
    {
        return $this->standing('bodies', $project, $id, static function (BuildingBodies $building, CoreStorey $storey, string $version): array {
            $of = $building->storey($storey->id);
            $drawn = BodiesWriter::drawn($of->shell());
            $roofs = [];
            foreach ($storey->roofs as $roof) {
                if (null !== ($over = $of->roofOver($roof))) {
                    $roofs[] = BodiesWriter::roof($roof->id, $over);
                }
            }

            return [
                'storey' => $storey->id,
                'version' => $version,
                ...$drawn,
                'surfaces' => array_map(
                    static fn (FinishedSurface $s): array => BodiesWriter::surface($s, $drawn['origin']),
                    $building->surfaces($storey->id),
                ),
                'roofs' => $roofs,
                'refused' => array_map(BodiesWriter::refused(...), $of->refused()),
            ];
        });
    }

    /** Apart, so that what is built is seen before them. */
    #[Needs(Who::Reader)]
    #[Route('/storeys/{id}/fills', methods: ['GET'])]
    public function fills(Uuid $project, Uuid $id): Response
    {
        return $this->standing('fills', $project, $id, static fn (BuildingBodies $building, CoreStorey $storey, string $version): array => [
            'storey' => $storey->id,
            'version' => $version,
            ...BodiesWriter::drawn($building->storey($storey->id)->fills()),
            'surfaces' => [],
            'roofs' => [],
            'refused' => [],
        ]);
    }

    #[Needs(Who::Reader)]
    #[Route('/storeys/{id}/heights', methods: ['GET'])]
    public function heights(Uuid $project, Uuid $id): Response
    {
        return $this->standing('heights', $project, $id, static fn (BuildingBodies $building, CoreStorey $storey): array => [
            'heights' => array_map(BodiesWriter::height(...), $building->storey($storey->id)->heights()),
        ]);
    }

    /** Stairs as the plan shows them: those that go up from the storey, and those that arrive there. */
    #[Needs(Who::Reader)]
    #[Route('/storeys/{id}/stairs', methods: ['GET'])]
    public function stairs(Uuid $project, Uuid $id): Response
    {
        return $this->standing('stairs', $project, $id, static fn (BuildingBodies $building, CoreStorey $storey): array => [
            'stairs' => array_map(BodiesWriter::stair(...), $building->storey($storey->id)->stairsShown()),
            'refused' => array_map(BodiesWriter::refused(...), $building->storey($storey->id)->refusedStairs()),
            'limits' => BodiesWriter::stairLimits($building->stairLimits()),
        ]);
    }

    /** Profiles along their paths as the plan shows them. */
    #[Needs(Who::Reader)]
    #[Route('/storeys/{id}/sweeps', methods: ['GET'])]
    public function sweeps(Uuid $project, Uuid $id): Response
    {
        return $this->standing('sweeps', $project, $id, static function (BuildingBodies $building, CoreStorey $storey): array {
            $of = $building->storey($storey->id);
            $shown = array_map(BodiesWriter::sweep(...), $of->sweepsShown());
            $ids = array_column($storey->sweeps, 'id');

            return ['sweeps' => $shown, 'refused' => array_map(
                BodiesWriter::refused(...),
                array_values(array_filter($of->refused(), static fn (Refused $r): bool => \in_array($r->id, $ids, true))),
            )];
        });
    }

    /**
     * What follows from rows takes its time: it is kept under a hash of all that it follows from.
     *
     * @param \Closure(BuildingBodies, CoreStorey, string): array<string, mixed> $told of the building, the storey, and that hash
     */
    private function standing(string $what, Uuid $project, Uuid $id, \Closure $told): Response
    {
        $row = $this->access->row(Storey::class, $project, $id);
        $plan = $this->building->of($project, $row->id());
        $version = hash('xxh128', json_encode(PlanWriter::document($plan), \JSON_THROW_ON_ERROR));
        $key = $row->id()->toRfc4122();
        $json = $this->cache->get("$what.$version.$key", static function () use ($plan, $key, $version, $told): string {
            $storey = array_values(array_filter($plan->storeys, static fn (CoreStorey $s): bool => $s->id === $key))[0];

            return json_encode($told(new BuildingBodies($plan), $storey, $version), \JSON_THROW_ON_ERROR);
        });

        return new JsonResponse($json, json: true);
    }

    /** What is enclosed by the walls of a storey, along their outer faces: for a floor or a roof over all of it. */
    #[Needs(Who::Reader)]
    #[Route('/storeys/{id}/outer', methods: ['GET'])]
    public function outer(Uuid $project, Uuid $id): Response
    {
        $row = $this->access->row(Storey::class, $project, $id);
        $outlines = Derivation::of($this->plans->load($row->key()))->outlines;

        return new JsonResponse(['rings' => array_map(static fn (BodyOutline $o): array => Straight::ring($o->outer), $outlines)]);
    }

    #[Needs(Who::Reader)]
    #[Route('/building.glb', methods: ['GET'])]
    public function glb(Uuid $project): Response
    {
        $plan = $this->building->of($project);
        [$names, $remarks] = [[], []];
        foreach ($plan->storeys as $storey) {
            $names[$storey->id] = $storey->name;
            $row = $this->access->row(Storey::class, $project, Uuid::fromString($storey->id));
            $remarks = [...$remarks, ...$this->handedOver->remarks($row)];
        }
        $building = new BuildingBodies($plan);
        $surfaces = array_merge(...array_map(static fn (CoreStorey $s): array => $building->surfaces($s->id), $plan->storeys));
        $glb = GlbWriter::write(BuildingBodies::of($plan), $names, array_values(array_unique($remarks)), $surfaces, $plan->finishes);

        return $this->handedOver->file($glb, 'model/gltf-binary', $this->access->project($project), '', 'glb');
    }

    #[Needs(Who::Reader)]
    #[Route('/quantities', methods: ['GET'])]
    public function quantities(Uuid $project): Response
    {
        $this->access->project($project);

        return new JsonResponse(['quantities' => $this->counted($project)]);
    }

    #[Needs(Who::Reader)]
    #[Route('/quantities.csv', methods: ['GET'])]
    public function table(Uuid $project): Response
    {
        $table = BuildingTables::quantities($this->counted($project));
        $csv = CsvTable::write($table->head, $table->rows);

        return $this->handedOver->file($csv, 'text/csv; charset=utf-8', $this->access->project($project), '', 'csv');
    }

    /** @return list<BuildingQuantity> kept as bodies are */
    private function counted(Uuid $project): array
    {
        $plan = $this->building->of($project);
        $version = hash('xxh128', json_encode(PlanWriter::document($plan), \JSON_THROW_ON_ERROR));

        return $this->cache->get("quantities.$version", static fn (): array => (new BuildingBodies($plan))->quantities());
    }

    #[Needs(Who::Reader)]
    #[Route('/storeys/{id}/plan.json', methods: ['GET'])]
    public function document(Uuid $project, Uuid $id): Response
    {
        $row = $this->access->row(Storey::class, $project, $id);
        $json = json_encode(
            PlanWriter::document($this->building->storey($row), $this->handedOver->remarks($row)),
            \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRETTY_PRINT,
        );

        return $this->handedOver->file($json, 'application/json', $this->access->project($row->project()), $row->name(), 'json');
    }
}
