<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Settling\Contradiction;
use Plinth\Core\Plan\Settling\StoreySettled;
use Plinth\Core\Plan\Settling\Unheld;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('settle', 'A plan document so that walls run as meant and figures hold', help: <<<'TEXT'
    Reads a plan document whose storeys may have `figures` (docs/plan-format.md). Answers
      plan            the document settled
      moves           node (its place before), by mm: every node that went elsewhere
      held            figures that hold now, measured
      contradictions  figure, the chain that it stands against, byMm, culprit
      unheld          figure, why, degrees: figures that hold nothing, nor contradict another
    TEXT)]
final class SettleCommand extends Command
{
    protected function configure(): void
    {
        Json::option($this, 'the plan document');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        [$storeys, $moves, $held, $contradictions, $unheld] = [[], [], [], [], []];
        foreach (PlanReader::read(Json::input($input))->storeys as $storey) {
            $settled = StoreySettled::of($storey);
            $storeys[] = $settled->storey;
            foreach ($settled->moves as [$from, $to]) {
                $moves[] = ['storey' => $storey->id, 'node' => $from->toArray(), 'to' => $to->toArray(), 'mm' => $from->distanceTo($to)];
            }
            array_push($held, ...$settled->settled->held);
            array_push($contradictions, ...array_map(static fn (Contradiction $c): array => (array) $c, $settled->settled->contradictions));
            array_push(
                $unheld,
                ...array_map(
                    static fn (Unheld $u): array => ['figure' => $u->figure, 'why' => $u->why->value, 'degrees' => $u->degrees],
                    $settled->settled->unheld,
                ),
            );
        }
        Json::write($output, [
            'plan' => PlanWriter::document(new Plan($storeys)),
            'moves' => $moves,
            'held' => $held,
            'contradictions' => $contradictions,
            'unheld' => $unheld,
        ]);

        return self::SUCCESS;
    }
}
