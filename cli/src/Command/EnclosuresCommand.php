<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Core\Exchange\FireDocument\FireWriter;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('enclosures', 'What is enclosed by classes of fire resistance, and what is wrong with it', help: <<<'TEXT'
    Reads a plan document (docs/plan-format.md) with its `fire`. Answers:
      areas     of every enclosure its shapes and m²
      totals    m² by class and storey; what lies in two of one class counts once
      findings  overlap of classes that may not lie over one place, a stair that goes on while its enclosure stops, a gap where no wall
                bounds it, a room that is open; each with a place, and a room that would mend it
      doors     in what bounds each, with width and rating
    TEXT)]
final class EnclosuresCommand extends Command
{
    protected function configure(): void
    {
        Json::option($this, 'the plan document');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        Json::write($output, (new FireWriter(PlanReader::read(Json::input($input))))->enclosures());

        return self::SUCCESS;
    }
}
