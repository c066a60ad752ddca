<?php

declare(strict_types=1);

namespace Plinth\Server\Sheets;

use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Exchange\SheetsDocument\SheetsWriter;
use Plinth\Core\Exchange\Svg\SvgWriter;
use Plinth\Core\Sheets\Exception\UnusableSheet;
use Plinth\Core\Sheets\PaperSize;
use Plinth\Core\Sheets\PlanningSet;
use Plinth\Core\Sheets\PrintedSheet;
use Plinth\Core\Sheets\SheetPainter;
use Plinth\Core\Sheets\Tiles;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Plan\HandedOver;
use Plinth\Server\Project\Project;
use Plinth\Server\Project\ProjectAccess;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Symfony\Component\Uid\UuidV7;

/** Print sheets: proposed as a set, as they are looked at, and as they are printed one by one. */
#[Route('/api/projects/{project}')]
final readonly class SheetController
{
    private const MOST_TILES = 64;

    public function __construct(
        private ProjectAccess $access,
        private Sheets $sheets,
        private SheetSubjects $subjects,
        private SheetPrinter $printer,
        private PrintedFiles $files,
        private HandedOver $handedOver,
        private ClockInterface $clock,
    ) {
    }

    /** A planning set of what there is, or fire plans, to be taken as it is or not at all. */
    #[Needs(Who::Reader)]
    #[Route('/sheets/proposal', methods: ['GET'])]
    public function proposal(Uuid $project, Request $request): Response
    {
        $paper = $this->paper($request, 'A3');
        $subject = $this->subjects->of($this->access->project($project));
        $newId = static fn (): string => (new UuidV7())->toRfc4122();
        try {
            $upright = $request->query->getBoolean('upright');
            $set = 'fire' === $request->query->getString('part')
                ? PlanningSet::fire($subject, $paper, $upright, $newId)
                : PlanningSet::of($subject, $paper, $upright, $newId);
        } catch (UnusableSheet $e) {
            throw Refusal::invalid($e->why(), $e->getMessage(), $e->at());
        }

        return new JsonResponse(['sheets' => Sheets::rows($set, $this->clock->now()->format('Y-m-d'))]);
    }

    #[Needs(Who::Reader)]
    #[Route('/sheets/{id}/sheet.svg', methods: ['GET'], defaults: ['format' => 'svg'])]
    #[Route('/sheets/{id}/sheet.pdf', methods: ['GET'], defaults: ['format' => 'pdf'])]
    #[Route('/sheets/{id}/sheet.png', methods: ['GET'], defaults: ['format' => 'png'])]
    public function sheet(Uuid $project, Uuid $id, string $format): Response
    {
        $row = $this->access->row(PrintSheet::class, $project, $id);
        $of = $this->access->project($project);
        $printed = $this->printed($of, $id->toRfc4122());
        if ('svg' === $format) {
            return new Response(SvgWriter::write($printed, true), 200, ['Content-Type' => 'image/svg+xml', 'Cache-Control' => 'no-store']);
        }
        $file = 'pdf' === $format
            ? $this->printer->bound([SvgWriter::write($printed)], $of->name(), [$printed->title])
            : $this->printer->png(SvgWriter::write($printed), max($printed->width, $printed->height));
        $name = trim($row->values()['number'].' '.$row->values()['part']);

        return $this->handedOver->file($file, 'pdf' === $format ? 'application/pdf' : 'image/png', $of, '' === $name ? 'sheet' : $name, $format);
    }

    /** All of them, as they were printed last. */
    #[Needs(Who::Reader)]
    #[Route('/sheets/set.pdf', methods: ['GET'])]
    public function set(Uuid $project): Response
    {
        $of = $this->access->project($project);
        $file = $this->files->of($of->id(), PrintedFiles::version($of)) ?? throw Refusal::conflict(
            'not-printed',
            'The set was not printed since the last change: ask for it to be printed, then take it.',
            'sheets',
        );

        return $this->handedOver->file((string) file_get_contents($file), 'application/pdf', $of, 'sheets', 'pdf');
    }

    /** One sheet for a printer of small paper: pieces that overlap, with marks where they lie on each other. */
    #[Needs(Who::Reader)]
    #[Route('/sheets/{id}/tiles.pdf', methods: ['GET'])]
    public function tiles(Uuid $project, Uuid $id, Request $request): Response
    {
        $row = $this->access->row(PrintSheet::class, $project, $id);
        $of = $this->access->project($project);
        $paper = $this->paper($request, 'A4');
        $printed = $this->printed($of, $id->toRfc4122());
        [$wide, $high, $pieces] = Tiles::of($printed->width, $printed->height, $paper);
        if (\count($pieces) > self::MOST_TILES) {
            throw Refusal::invalid('many-tiles', \sprintf('That would be %d pages: choose larger paper.', \count($pieces)), 'paper');
        }
        $file = $this->printer->bound(
            array_map(static fn (array $piece): string => SvgWriter::tile($printed, $wide, $high, $piece), $pieces),
            $of->name(),
            array_column($pieces, 2),
        );
        $name = trim($row->values()['number'].' '.$row->values()['part'].' in pieces');

        return $this->handedOver->file($file, 'application/pdf', $of, $name, 'pdf');
    }

    /** The whole building with its sheets, and the sides that they show: what the command line prints from. */
    #[Needs(Who::Reader)]
    #[Route('/plan.json', methods: ['GET'])]
    public function document(Uuid $project): Response
    {
        $of = $this->access->project($project);
        [$plan, $sheets, $sides] = $this->subjects->documented($of);
        $json = json_encode(
            [...PlanWriter::document($plan), ...SheetsWriter::parts($sheets, $sides)],
            \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRETTY_PRINT,
        );

        return $this->handedOver->file($json, 'application/json', $of, '', 'json');
    }

    private function paper(Request $request, string $usual): PaperSize
    {
        return PaperSize::tryFrom($request->query->getString('paper', $usual)) ?? throw Refusal::invalid(
            'no-paper',
            'There is no such paper: choose A4, A3, A2, A1 or A0.',
            'paper',
        );
    }

    private function printed(Project $project, string $id): PrintedSheet
    {
        $sheets = $this->sheets->of($project->id());
        foreach ($sheets as $i => $sheet) {
            if ($sheet->id === $id) {
                try {
                    return (new SheetPainter($this->subjects->of($project, [$sheet])))->sheet($sheet, $i + 1, \count($sheets));
                } catch (UnusableSheet $e) {
                    throw Refusal::invalid($e->why(), $e->getMessage(), $e->at());
                }
            }
        }
        throw Refusal::notFound();
    }
}
