<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Exchange\BodiesDocument\BodiesWriter;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('bodies', 'A plan document to the bodies of its building', help: <<<'TEXT'
    Reads a plan document (docs/plan-format.md). Answers all that stands as closed bodies with their volumes, surfaces with their finish and
    net area, roofs with the areas of
    their facets and the lengths of their lines, and what cannot stand.
    TEXT)]
final class BodiesCommand extends Command
{
    protected function configure(): void
    {
        Json::option($this, 'the plan document');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $plan = PlanReader::read(Json::input($input));
        $building = new BuildingBodies($plan);
        $told = ['bodies' => [], 'surfaces' => [], 'roofs' => [], 'stairs' => [], 'refused' => []];
        foreach ($plan->storeys as $storey) {
            $bodies = $building->storey($storey->id);
            array_push($told['bodies'], ...array_map(BodiesWriter::body(...), $bodies->all()));
            array_push($told['surfaces'], ...array_map(BodiesWriter::measured(...), $building->surfaces($storey->id)));
            foreach ($storey->roofs as $roof) {
                if (null !== ($over = $bodies->roofOver($roof))) {
                    $told['roofs'][] = BodiesWriter::roof($roof->id, $over);
                }
            }
            foreach ($bodies->stairsShown() as $shown) {
                if ($shown->goesUp) {
                    $told['stairs'][] = BodiesWriter::stair($shown);
                }
            }
            array_push($told['refused'], ...array_map(BodiesWriter::refused(...), $bodies->refused()));
        }
        Json::write($output, $told);

        return self::SUCCESS;
    }
}
