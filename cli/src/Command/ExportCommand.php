<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Cli\Picture\Printer;
use Plinth\Cli\WrongUsage;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Bodies\ShownStair;
use Plinth\Core\Bodies\ShownSweep;
use Plinth\Core\Exchange\BodiesDocument\BodiesWriter;
use Plinth\Core\Exchange\Csv\CsvTable;
use Plinth\Core\Exchange\Dxf\DxfLayers;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Exchange\GeoJson\GeoJsonWriter;
use Plinth\Core\Exchange\Gltf\GlbWriter;
use Plinth\Core\Exchange\Ifc\IfcProject;
use Plinth\Core\Exchange\Ifc\IfcWriter;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Exchange\SheetsDocument\SheetsReader;
use Plinth\Core\Exchange\Svg\SvgWriter;
use Plinth\Core\Exchange\Tables\BuildingTables;
use Plinth\Core\Exchange\Tables\OdsWriter;
use Plinth\Core\Exchange\Tables\Table;
use Plinth\Core\Exchange\Tables\XlsxWriter;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Projection\Projection;
use Plinth\Core\Sheets\FireOnPlan;
use Plinth\Core\Sheets\PaperSize;
use Plinth\Core\Sheets\PlanBeside;
use Plinth\Core\Sheets\PlanningSet;
use Plinth\Core\Sheets\PrintedSheet;
use Plinth\Core\Sheets\PrintScale;
use Plinth\Core\Sheets\SectionMark;
use Plinth\Core\Sheets\SheetPainter;
use Plinth\Core\Sheets\SheetSubject;
use Plinth\Core\Sheets\SubjectSide;
use Plinth\Core\Stairs\StairPlan;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('export', 'A plan document to a file', help: <<<'TEXT'
    Reads a plan document (docs/plan-format.md). As dxf it writes the lines of all storeys, or of one, as gltf their bodies, as
    ifc the whole building (IFC4); as ods, xlsx or csv its tables, csv as a zip with a file for each; as geojson rooms and walls, in metres.
    As svg, pdf or png it writes a print sheet: the one of the document that --sheet names by its number in the order, or without
    it one with the plan of a storey at a scale. As pdf, --sheet all binds every sheet. Answers {"file", "bytes"} with what is in it.
    TEXT)]
final class ExportCommand extends Command
{
    private const FORMATS = ['dxf', 'ifc', 'gltf', 'svg', 'pdf', 'png', 'ods', 'xlsx', 'csv', 'geojson'];

    public function __construct(private readonly Printer $printer)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('format', InputArgument::REQUIRED, implode(', ', self::FORMATS));
        $this->addOption('out', null, InputOption::VALUE_REQUIRED, 'the file to write');
        $this->addOption('storey', null, InputOption::VALUE_REQUIRED, 'its id; without it all, on a sheet made here the first');
        $this->addOption('layers', null, InputOption::VALUE_REQUIRED, 'of dxf: plain, or iso13567', 'plain');
        $this->addOption('sheet', null, InputOption::VALUE_REQUIRED, 'which sheet of the document, from 1; as pdf also: all');
        $this->addOption('paper', null, InputOption::VALUE_REQUIRED, 'A4 to A0, of a sheet that is made here', 'A3');
        $this->addOption('upright', null, InputOption::VALUE_NONE, 'the longer side of the paper stands');
        $this->addOption('scale', null, InputOption::VALUE_REQUIRED, '1 : so much; without it the largest of ISO 5455 that fits');
        $this->addOption('title', null, InputOption::VALUE_REQUIRED, 'what the sheet is called', '');
        Json::option($this, 'the plan document');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $format = Json::text($input->getArgument('format'));
        if (!\in_array($format, self::FORMATS, true)) {
            throw WrongUsage::unknownFormat($format, self::FORMATS);
        }
        $out = $input->getOption('out') ?? throw WrongUsage::missingOption('out');
        $wanted = $input->getOption('storey');
        $document = Json::input($input);
        $plan = PlanReader::read($document);
        $storeys = array_values(array_filter($plan->storeys, static fn (Storey $s): bool => null === $wanted || $wanted === $s->id));
        if ([] === $storeys) {
            throw WrongUsage::noStorey(Json::text($wanted));
        }
        [$written, $told] = match ($format) {
            'dxf' => self::dxf($plan, $storeys, Json::text($input->getOption('layers'))),
            'gltf' => self::gltf($plan, $storeys),
            'ifc' => self::ifc($plan, Json::text($input->getOption('title'))),
            'geojson' => [GeoJsonWriter::write($plan), ['storeys' => \count($plan->storeys)]],
            'ods', 'xlsx', 'csv' => self::tables($plan, $format),
            default => null === $input->getOption('sheet')
                ? $this->printed($format, [self::sheet($plan, $storeys[0], $input)], Json::text($input->getOption('title')))
                : $this->printed(
                    $format,
                    self::sheets(
                        $plan,
                        SheetsReader::read($document),
                        Json::text($input->getOption('sheet')),
                        $format,
                        Json::text($input->getOption('title')),
                    ),
                    Json::text($input->getOption('title')),
                ),
        };
        if (false === @file_put_contents(Json::text($out), $written)) {
            throw WrongUsage::cannotWrite(Json::text($out));
        }
        Json::write($output, ['file' => $out, 'bytes' => \strlen($written), ...$told]);

        return self::SUCCESS;
    }

    /**
     * @param list<Storey> $storeys one, or all of them beside each other
     *
     * @return array{string, array<string, mixed>}
     */
    private static function dxf(Plan $plan, array $storeys, string $layers): array
    {
        $named = DxfLayers::tryFrom($layers) ?? throw WrongUsage::unknownLayers($layers);
        $beside = self::subject($plan, '')->beside;
        $drawn = array_map(static fn (Storey $s): array => [$s, Derivation::of($s), $beside[$s->id]], $storeys);

        return [DxfWriter::building($drawn, layers: $named, fire: FireOnPlan::of($plan)), [
            'storeys' => array_column($storeys, 'id'),
            'walls' => array_sum(array_map(static fn (Storey $s): int => \count($s->walls), $storeys)),
            'stairs' => array_sum(array_map(static fn (Storey $s): int => \count($beside[$s->id]->stairs), $storeys)),
        ]];
    }

    /**
     * A document has no id: things are named by its title, for good as long as that stays.
     *
     * @return array{string, array<string, mixed>}
     */
    private static function ifc(Plan $plan, string $title): array
    {
        $title = '' === $title ? 'Plan' : $title;

        $numbers = SheetSubject::numbered($plan, $plan->numbers);

        return [IfcWriter::write($plan, new IfcProject($title, $title, buildUps: $plan->buildUps, numbers: $numbers)), [
            'storeys' => \count($plan->storeys),
            'walls' => array_sum(array_map(static fn (Storey $s): int => \count($s->walls), $plan->storeys)),
        ]];
    }

    /** @return array{string, array<string, mixed>} */
    private static function tables(Plan $plan, string $format): array
    {
        $tables = BuildingTables::of(new SheetSubject('', $plan));

        return [match ($format) {
            'ods' => OdsWriter::write($tables),
            'xlsx' => XlsxWriter::write($tables),
            default => CsvTable::zip($tables),
        }, ['tables' => array_map(static fn (Table $t): array => ['name' => $t->name, 'rows' => \count($t->rows)], $tables)]];
    }

    /**
     * @param non-empty-list<PrintedSheet> $sheets
     *
     * @return array{string, array<string, mixed>}
     */
    private function printed(string $format, array $sheets, string $title): array
    {
        $first = $sheets[0];
        $told = ['sheets' => array_map(
            static fn (PrintedSheet $s): array => ['title' => $s->title, 'widthMm' => $s->width, 'heightMm' => $s->height],
            $sheets,
        )];

        return [match ($format) {
            'svg' => SvgWriter::write($first, true),
            'png' => $this->printer->png($first),
            default => $this->printer->pdf($sheets, $title),
        }, $told];
    }

    /**
     * Sheets of the document itself.
     *
     * @return non-empty-list<PrintedSheet>
     */
    private static function sheets(Plan $plan, SheetsReader $read, string $wanted, string $format, string $title): array
    {
        $count = \count($read->sheets);
        $number = 'all' === $wanted && 'pdf' === $format ? 0 : filter_var(
            $wanted,
            \FILTER_VALIDATE_INT,
            ['options' => ['min_range' => 1, 'max_range' => $count]],
        );
        if (false === $number || 0 === $count) {
            throw WrongUsage::noSheet($wanted, $count);
        }
        $bodies = BuildingBodies::of($plan);
        [$sides, $cuts] = [[], []];
        foreach ($read->sides as $side) {
            $sides[$side->id] = new SubjectSide($side->name, Projection::of($bodies, $side->looks(), true), $side->cut ? $side->line : []);
            if ($side->cut) {
                $cuts[] = new SectionMark(SectionMark::letter($side->name), $side->line);
            }
        }
        $painter = new SheetPainter(self::subject($plan, $title, $sides, $cuts));
        $printed = [];
        foreach ($read->sheets as $i => $sheet) {
            if (0 === $number || $i + 1 === $number) {
                $printed[] = $painter->sheet($sheet, $i + 1, $count);
            }
        }

        return [] === $printed ? throw WrongUsage::noSheet($wanted, $count) : $printed;
    }

    /**
     * @param array<string, SubjectSide> $sides
     * @param list<SectionMark> $cuts
     */
    private static function subject(Plan $plan, string $title, array $sides = [], array $cuts = []): SheetSubject
    {
        $building = new BuildingBodies($plan);
        $numbers = SheetSubject::numbered($plan, $plan->numbers);
        $beside = [];
        foreach ($plan->storeys as $storey) {
            $of = $building->storey($storey->id);
            $beside[$storey->id] = new PlanBeside(
                array_map(static fn (ShownStair $s): StairPlan => $s->plan, $of->stairsShown()),
                array_merge([], ...array_map(static fn (ShownSweep $s): array => $s->rings, $of->sweepsShown())),
                numbers: $numbers,
                sections: $cuts,
            );
        }

        return new SheetSubject('' === $title ? 'Plan' : $title, $plan, beside: $beside, sides: $sides, honest: array_fill_keys(
            array_column($plan->storeys, 'id'),
            'From a plan document: what it was traced from, and how true that is, is not said in it.',
        ));
    }

    private static function sheet(Plan $plan, Storey $storey, InputInterface $input): PrintedSheet
    {
        $size = Json::text($input->getOption('paper'));
        $paper = PaperSize::tryFrom(strtoupper($size)) ?? throw WrongUsage::unknownPaper($size);
        $scale = $input->getOption('scale');
        $range = ['options' => ['min_range' => 1, 'max_range' => 10_000]];
        $wanted = null === $scale ? null : filter_var($scale, \FILTER_VALIDATE_INT, $range);
        if (false === $wanted) {
            throw WrongUsage::noScale(Json::text($scale));
        }
        $title = Json::text($input->getOption('title'));
        $subject = self::subject($plan, $title);
        $scales = null === $wanted ? PrintScale::RECOMMENDED : [(float) $wanted];
        $sheet = PlanningSet::plan($subject, $storey->id, $paper, true === $input->getOption('upright'), $scales);

        return (new SheetPainter($subject))->sheet($sheet);
    }

    /**
     * @param list<Storey> $storeys of the plan
     *
     * @return array{string, array<string, mixed>}
     */
    private static function gltf(Plan $plan, array $storeys): array
    {
        $building = new BuildingBodies($plan);
        [$bodies, $surfaces, $names, $refused] = [[], [], [], []];
        foreach ($storeys as $storey) {
            array_push($bodies, ...$building->storey($storey->id)->all());
            array_push($surfaces, ...$building->surfaces($storey->id));
            array_push($refused, ...$building->storey($storey->id)->refused());
            $names[$storey->id] = '' === $storey->name ? $storey->id : $storey->name;
        }

        return [GlbWriter::write($bodies, $names, surfaces: $surfaces, finishes: $plan->finishes), [
            'bodies' => \count($bodies),
            'refused' => array_map(BodiesWriter::refused(...), $refused),
        ]];
    }
}
