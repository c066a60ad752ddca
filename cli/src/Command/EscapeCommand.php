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

#[AsCommand('escape', 'Ways out of a building, from the worst place of every room', help: <<<'TEXT'
    Reads a plan document (docs/plan-format.md) whose doors say where they are exits: `exit` is `storey` or `final`. Answers for every room
    the way to the next exit, and to the next final one, from the place from which it is furthest; null where there is none:
      mm        its length: round walls and things, on stairs along their pitch
      places    where it begins, turns and ends, each on its storey
      doors     what is passed, the exit with them; narrowestMm; against: those that open against who passes
      stairs    that are walked
      enclosed  what it runs in, one after the other, and for how many mm; fireClass is null where nothing encloses it
    broken says which of the document's own limits are not kept. stairs are the ways from the upper end of each into the open air.
    second is a way to another exit from the same place: singleMm until both part, degrees between them there.
    TEXT)]
final class EscapeCommand extends Command
{
    protected function configure(): void
    {
        Json::option($this, 'the plan document');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        Json::write($output, (new FireWriter(PlanReader::read(Json::input($input))))->escape());

        return self::SUCCESS;
    }
}
