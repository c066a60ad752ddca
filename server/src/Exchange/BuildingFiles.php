<?php

declare(strict_types=1);

namespace Plinth\Server\Exchange;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Csv\CsvTable;
use Plinth\Core\Exchange\Dxf\DxfLayers;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Exchange\GeoJson\GeoJsonWriter;
use Plinth\Core\Exchange\Ifc\IfcProject;
use Plinth\Core\Exchange\Ifc\IfcWriter;
use Plinth\Core\Exchange\Tables\BuildingTables;
use Plinth\Core\Exchange\Tables\OdsWriter;
use Plinth\Core\Exchange\Tables\XlsxWriter;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Projection\DrawnView;
use Plinth\Core\Sheets\FireOnPlan;
use Plinth\Core\Sheets\Model\PrintSheet;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\ViewKind;
use Plinth\Core\Sheets\PlanBeside;
use Plinth\Core\Sheets\SheetSubject;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Plan\HandedOver;
use Plinth\Server\Project\Project;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\Side;
use Plinth\Server\Project\Storey;
use Plinth\Server\Sheets\SheetSubjects;
use Plinth\Server\Site\MapReference;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** The whole building in formats that other programs read. */
#[Route('/api/projects/{project}')]
final readonly class BuildingFiles
{
    public function __construct(
        private ProjectAccess $access,
        private SheetSubjects $subjects,
        private HandedOver $handedOver,
        private EntityManagerInterface $entities,
        private LatestChange $latest,
        private EvidenceTables $evidence,
        private MapReference $reference,
    ) {
    }

    #[Needs(Who::Reader)]
    #[Route('/building.ifc', methods: ['GET'])]
    public function ifc(Uuid $project): Response
    {
        [$of, $subject] = $this->subject($project);
        $ifc = IfcWriter::write($subject->plan, new IfcProject(
            $of->id()->toRfc4122(),
            $of->name(),
            $this->latest->of($of)->format('Y-m-d\TH:i:s'),
            $subject->buildUps,
            $subject->numbers,
            $subject->boundaries,
            $subject->bearing,
            $subject->honest,
            $this->reference->of($project),
        ), array_values(array_unique($subject->honest)));

        return $this->handedOver->file($ifc, 'application/x-step', $of, '', 'ifc');
    }

    #[Needs(Who::Reader)]
    #[Route('/tables.ods', methods: ['GET'], defaults: ['format' => 'ods'])]
    #[Route('/tables.xlsx', methods: ['GET'], defaults: ['format' => 'xlsx'])]
    #[Route('/tables.zip', methods: ['GET'], defaults: ['format' => 'zip'])]
    public function tables(Uuid $project, string $format): Response
    {
        [$of, $subject] = $this->subject($project);
        $tables = [...BuildingTables::of($subject), ...$this->evidence->of($of)];
        [$type, $file] = match ($format) {
            'ods' => ['application/vnd.oasis.opendocument.spreadsheet', OdsWriter::write($tables)],
            'xlsx' => ['application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', XlsxWriter::write($tables)],
            default => ['application/zip', CsvTable::zip($tables)],
        };

        return $this->handedOver->file($file, $type, $of, 'tables', $format);
    }

    #[Needs(Who::Reader)]
    #[Route('/plan.geojson', methods: ['GET'])]
    public function geojson(Uuid $project): Response
    {
        [$of, $subject] = $this->subject($project);
        $json = GeoJsonWriter::write($subject->plan, $subject->boundaries, $this->reference->of($project), array_values(array_unique($subject->honest)));

        return $this->handedOver->file($json, 'application/geo+json', $of, '', 'geojson');
    }

    /** A storey as a drawing, or all of them beside each other. */
    #[Needs(Who::Reader)]
    #[Route('/storeys/{id}/plan.dxf', methods: ['GET'])]
    #[Route('/building.dxf', methods: ['GET'])]
    public function dxf(Uuid $project, Request $request, ?Uuid $id = null): Response
    {
        $of = $this->access->project($project);
        $row = null === $id ? null : $this->access->row(Storey::class, $project, $id);
        $rows = null === $row
            ? $this->entities->getRepository(Storey::class)->findBy(['project' => $project], ['elevation' => 'ASC', 'id' => 'ASC'])
            : [$row];
        $views = array_map(static fn (Storey $s): SheetView => new SheetView('', ViewKind::Plan, $s->id()->toRfc4122(), 0.0, 0.0), $rows);
        $subject = $this->subjects->of($of, [new PrintSheet('', 1.0, 1.0, $views)]);
        $drawn = [];
        foreach ($rows as $storey) {
            $plan = $subject->storey($storey->id()->toRfc4122());
            if (null !== $plan) {
                $drawn[] = [$plan, Derivation::of($plan), $subject->beside[$plan->id] ?? new PlanBeside()];
            }
        }
        $remarks = array_values(array_unique(array_merge(...array_map($this->handedOver->remarks(...), $rows))));
        $dxf = DxfWriter::building($drawn, $of->shows(), $remarks, $of->areas(), self::layers($request), FireOnPlan::of($subject->plan));

        return $this->handedOver->file($dxf, 'image/vnd.dxf', $of, $row?->name() ?? '', 'dxf');
    }

    /** A side or a section with what is drawn on it. */
    #[Needs(Who::Reader)]
    #[Route('/sides/{id}/view.dxf', methods: ['GET'], format: 'dxf')]
    public function side(Uuid $project, Uuid $id, Request $request): Response
    {
        $of = $this->access->project($project);
        $side = $this->access->row(Side::class, $project, $id);
        $key = $side->id()->toRfc4122();
        $subject = $this->subjects->of($of, [new PrintSheet('', 1.0, 1.0, [new SheetView('', ViewKind::Side, $key, 0.0, 0.0)])]);
        $view = $subject->sides[$key]->drawn ?? new DrawnView([], []);
        $dxf = DxfWriter::view($view, $of->shows(), beside: $subject->beside[$key] ?? new PlanBeside(), layers: self::layers($request));

        return $this->handedOver->file($dxf, 'image/vnd.dxf', $of, $side->name(), 'dxf');
    }

    private static function layers(Request $request): DxfLayers
    {
        return DxfLayers::tryFrom($request->query->getString('layers', DxfLayers::Plain->value)) ?? throw Refusal::invalid(
            'no-layers',
            'Layers are called plainly or by ISO 13567: say plain or iso13567.',
            'layers',
        );
    }

    /** @return array{Project, SheetSubject} */
    private function subject(Uuid $project): array
    {
        $of = $this->access->project($project);

        return [$of, $this->subjects->of($of, [])];
    }
}
