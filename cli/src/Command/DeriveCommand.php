<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Exchange\BodiesDocument\BodiesWriter;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Storey;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('derive', 'A plan document to what follows from it', help: <<<'TEXT'
    Reads a plan document (docs/plan-format.md). Answers each storey’s outlines, rooms, openings, leaks, areas and findings, how high its
    rooms are and what of them lies under stairs, and its stairs with what they lack.
    TEXT)]
final class DeriveCommand extends Command
{
    protected function configure(): void
    {
        Json::option($this, 'the plan document');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $plan = PlanReader::read(Json::input($input));
        $building = new BuildingBodies($plan);
        Json::write($output, ['storeys' => array_map(static fn (Storey $s): array => [
            ...PlanWriter::derived(Derivation::of($s)),
            'heights' => array_map(BodiesWriter::height(...), $building->storey($s->id)->heights()),
            'stairs' => array_map(BodiesWriter::stair(...), $building->storey($s->id)->stairsShown()),
        ], $plan->storeys)]);

        return self::SUCCESS;
    }
}
