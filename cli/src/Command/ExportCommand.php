<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Cli\WrongUsage;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Bodies\ShownStair;
use Plinth\Core\Exchange\BodiesDocument\BodiesWriter;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Exchange\Gltf\GlbWriter;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Stairs\StairPlan;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('export', 'A plan document to a file', help: <<<'TEXT'
    Reads a plan document (docs/plan-format.md). As dxf it writes the lines of one storey, as gltf the bodies of all of them, or of one, and
    answers {"file", "bytes"} with what is in it.
    TEXT)]
final class ExportCommand extends Command
{
    protected function configure(): void
    {
        $this->addArgument('format', InputArgument::REQUIRED, 'dxf or gltf');
        $this->addOption('out', null, InputOption::VALUE_REQUIRED, 'the file to write');
        $this->addOption('storey', null, InputOption::VALUE_REQUIRED, 'its id; without it the first one as dxf, all of them as gltf');
        Json::option($this, 'the plan document');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $format = Json::text($input->getArgument('format'));
        if (!\in_array($format, ['dxf', 'gltf'], true)) {
            throw WrongUsage::unknownFormat($format);
        }
        $out = $input->getOption('out') ?? throw WrongUsage::missingOption('out');
        $wanted = $input->getOption('storey');
        $plan = PlanReader::read(Json::input($input));
        $storeys = array_values(array_filter($plan->storeys, static fn (Storey $s): bool => null === $wanted || $wanted === $s->id));
        if ([] === $storeys) {
            throw WrongUsage::noStorey(Json::text($wanted));
        }
        [$written, $told] = 'dxf' === $format ? self::dxf($plan, $storeys[0]) : self::gltf($plan, $storeys);
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
