<?php

declare(strict_types=1);

namespace Plinth\Server\Sheets;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Bodies\ShownStair;
use Plinth\Core\Bodies\ShownSweep;
use Plinth\Core\Drafting\DrawnDimension;
use Plinth\Core\Drafting\DrawnLine as CoreLine;
use Plinth\Core\Exchange\Svg\SvgWriter;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Sheets\Exception\UnusableSheet;
use Plinth\Core\Sheets\PaperSize;
use Plinth\Core\Sheets\PlanBeside;
use Plinth\Core\Sheets\PrintSheet;
use Plinth\Core\Sheets\TitleFields;
use Plinth\Core\Stairs\StairPlan;
use Plinth\Server\Building\BuildingPlan;
use Plinth\Server\Drafting\Dimension;
use Plinth\Server\Drafting\DrawnLine;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Plan\HandedOver;
use Plinth\Server\Plan\Note;
use Plinth\Server\Project\Project;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\Storey;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** The plan of a storey on a print sheet: as it is looked at, and as it is printed. */
#[Route('/api/projects/{project}/storeys/{id}')]
final readonly class SheetController
{
    private const SCALES = [1, 10_000];

    public function __construct(
        private ProjectAccess $access,
        private BuildingPlan $building,
        private EntityManagerInterface $entities,
        private HonestLine $honest,
        private SheetPrinter $printer,
        private HandedOver $handedOver,
        private ClockInterface $clock,
    ) {
    }

    #[Needs(Who::Reader)]
    #[Route('/sheet.svg', methods: ['GET'], defaults: ['format' => 'svg'])]
    #[Route('/sheet.pdf', methods: ['GET'], defaults: ['format' => 'pdf'])]
    #[Route('/sheet.png', methods: ['GET'], defaults: ['format' => 'png'])]
    public function sheet(Uuid $project, Uuid $id, string $format, Request $request): Response
    {
        $storey = $this->access->row(Storey::class, $project, $id);
        $of = $this->access->project($project);
        $paper = PaperSize::tryFrom($request->query->getString('paper', 'A3')) ?? throw Refusal::invalid(
            'no-paper',
            'There is no such paper: choose A4, A3, A2, A1 or A0.',
            'paper',
        );
        $scale = $request->query->has('scale') ? filter_var($request->query->getString('scale'), \FILTER_VALIDATE_INT, [
            'options' => ['min_range' => self::SCALES[0], 'max_range' => self::SCALES[1]],
        ]) : null;
        if (false === $scale) {
            throw Refusal::invalid('no-scale', 'A scale is a whole number from 1 to 10 000: 100 for 1:100.', 'scale');
        }
        try {
            $sheet = $this->drawn($of, $storey, $paper, $request->query->getBoolean('upright'), $scale);
        } catch (UnusableSheet $e) {
            throw Refusal::invalid($e->why(), $e->getMessage(), $e->at());
        }
        $title = trim($of->name().', '.$storey->name(), ', ');
        $svg = SvgWriter::write($sheet->ink, $sheet->width, $sheet->height, $title, 'svg' === $format);
        if ('svg' === $format) {
            return new Response($svg, 200, ['Content-Type' => 'image/svg+xml', 'Cache-Control' => 'no-store']);
        }
        $printed = 'pdf' === $format ? $this->printer->pdf($svg) : $this->printer->png($svg, max($sheet->width, $sheet->height));

        return $this->handedOver->file($printed, 'pdf' === $format ? 'application/pdf' : 'image/png', $of, $storey->name(), $format);
    }

    private function drawn(Project $of, Storey $row, PaperSize $paper, bool $isUpright, ?int $scale): PrintSheet
    {
        $plan = $this->building->of($row->project(), $row->id());
        $id = $row->id()->toRfc4122();
        foreach ($plan->storeys as $storey) {
            if ($storey->id === $id) {
                $fields = new TitleFields($of->name(), $row->name(), $this->honest->of($row), date: $this->clock->now()->format('Y-m-d'));
                $beside = $this->beside($row, new BuildingBodies($plan));

                return PrintSheet::plan($storey, Derivation::of($storey), $fields, $paper, $isUpright, $scale, $of->shows(), $of->areas(), $beside);
            }
        }
        throw Refusal::notFound();
    }

    private function beside(Storey $row, BuildingBodies $building): PlanBeside
    {
        $here = ['project' => $row->project(), 'storey' => $row->id()];
        $bodies = $building->storey($row->id()->toRfc4122());
        $notes = [];
        foreach ($this->entities->getRepository(Note::class)->findBy($here, ['id' => 'ASC']) as $note) {
            $v = $note->values();
            $to = null === $v['toX'] || null === $v['toY'] ? null : [(float) $v['toX'], (float) $v['toY']];
            $notes[] = [[(float) $v['x'], (float) $v['y']], (true === $v['assumption'] ? 'assumed: ' : '').$v['words'], $to];
        }

        return new PlanBeside(
            array_map(static fn (ShownStair $s): StairPlan => $s->plan, $bodies->stairsShown()),
            array_merge([], ...array_map(static fn (ShownSweep $s): array => $s->rings, $bodies->sweepsShown())),
            array_map(
                static fn (DrawnLine $l): CoreLine => $l->drawn(),
                $this->entities->getRepository(DrawnLine::class)->findBy($here, ['id' => 'ASC']),
            ),
            array_map(
                static fn (Dimension $d): DrawnDimension => $d->told(),
                $this->entities->getRepository(Dimension::class)->findBy($here, ['id' => 'ASC']),
            ),
            $notes,
        );
    }
}
