<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Cli\WrongUsage;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Bodies\ShownStair;
use Plinth\Core\Bodies\ShownSweep;
use Plinth\Core\Exchange\BodiesDocument\BodiesWriter;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Exchange\Gltf\GlbWriter;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Exchange\Svg\SvgWriter;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Sheets\PaperSize;
use Plinth\Core\Sheets\PlanBeside;
use Plinth\Core\Sheets\PlanningSet;
use Plinth\Core\Sheets\PrintScale;
use Plinth\Core\Sheets\SheetPainter;
use Plinth\Core\Sheets\SheetSubject;
use Plinth\Core\Stairs\StairPlan;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('export', 'A plan document to a file', help: <<<'TEXT'
    Reads a plan document (docs/plan-format.md). As dxf it writes the lines of one storey, as svg a print sheet with its plan at a scale,
    as gltf the bodies of all of them, or of one, and answers {"file", "bytes"} with what is in it.
    TEXT)]
final class ExportCommand extends Command
{
    protected function configure(): void
    {
        $this->addArgument('format', InputArgument::REQUIRED, 'dxf, svg or gltf');
        $this->addOption('out', null, InputOption::VALUE_REQUIRED, 'the file to write');
        $this->addOption('storey', null, InputOption::VALUE_REQUIRED, 'its id; without it the first one, as gltf all of them');
        $this->addOption('paper', null, InputOption::VALUE_REQUIRED, 'A4 to A0, as svg', 'A3');
        $this->addOption('upright', null, InputOption::VALUE_NONE, 'the longer side of the paper stands');
        $this->addOption('scale', null, InputOption::VALUE_REQUIRED, '1 : so much; without it the largest of ISO 5455 that fits');
        $this->addOption('title', null, InputOption::VALUE_REQUIRED, 'what the sheet is called', '');
        Json::option($this, 'the plan document');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $format = Json::text($input->getArgument('format'));
        if (!\in_array($format, ['dxf', 'svg', 'gltf'], true)) {
            throw WrongUsage::unknownFormat($format);
        }
        $out = $input->getOption('out') ?? throw WrongUsage::missingOption('out');
        $wanted = $input->getOption('storey');
        $plan = PlanReader::read(Json::input($input));
        $storeys = array_values(array_filter($plan->storeys, static fn (Storey $s): bool => null === $wanted || $wanted === $s->id));
        if ([] === $storeys) {
            throw WrongUsage::noStorey(Json::text($wanted));
        }
        [$written, $told] = match ($format) {
            'dxf' => self::dxf($plan, $storeys[0]),
            'svg' => self::sheet($plan, $storeys[0], $input),
            default => self::gltf($plan, $storeys),
        };
        if (false === @file_put_contents(Json::text($out), $written)) {
            throw WrongUsage::cannotWrite(Json::text($out));
        }
        Json::write($output, ['file' => $out, 'bytes' => \strlen($written), ...$told]);

        return self::SUCCESS;
    }

    /** @return array{string, array<string, mixed>} */
    private static function dxf(Plan $plan, Storey $storey): array
    {
        $shown = (new BuildingBodies($plan))->storey($storey->id)->stairsShown();
        $stairs = array_map(static fn (ShownStair $s): StairPlan => $s->plan, $shown);

        return [DxfWriter::write($storey, Derivation::of($storey), stairs: $stairs), [
            'storey' => $storey->id, 'walls' => \count($storey->walls), 'stairs' => \count($stairs),
        ]];
    }

    /** @return array{string, array<string, mixed>} */
    private static function sheet(Plan $plan, Storey $storey, InputInterface $input): array
    {
        $size = Json::text($input->getOption('paper'));
        $paper = PaperSize::tryFrom(strtoupper($size)) ?? throw WrongUsage::unknownPaper($size);
        $scale = $input->getOption('scale');
        $range = ['options' => ['min_range' => 1, 'max_range' => 10_000]];
        $wanted = null === $scale ? null : filter_var($scale, \FILTER_VALIDATE_INT, $range);
        if (false === $wanted) {
            throw WrongUsage::noScale(Json::text($scale));
        }
        $name = '' === $storey->name ? $storey->id : $storey->name;
        $title = Json::text($input->getOption('title'));
        $of = (new BuildingBodies($plan))->storey($storey->id);
        $beside = new PlanBeside(
            array_map(static fn (ShownStair $s): StairPlan => $s->plan, $of->stairsShown()),
            array_merge([], ...array_map(static fn (ShownSweep $s): array => $s->rings, $of->sweepsShown())),
            numbers: SheetSubject::numbered($plan),
        );
        $subject = new SheetSubject('' === $title ? 'Plan' : $title, $plan, beside: [$storey->id => $beside], honest: [
            $storey->id => 'From a plan document: what it was traced from, and how true that is, is not said in it.',
        ]);
        $scales = null === $wanted ? PrintScale::RECOMMENDED : [(float) $wanted];
        $sheet = PlanningSet::plan($subject, $storey->id, $paper, true === $input->getOption('upright'), $scales);
        $printed = (new SheetPainter($subject))->sheet($sheet);

        return [SvgWriter::write($printed, true), [
            'storey' => $storey->id, 'scale' => $sheet->views[0]->scale, 'widthMm' => $sheet->width, 'heightMm' => $sheet->height,
        ]];
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
