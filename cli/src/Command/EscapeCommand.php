<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Core\Escape\EscapePlan;
use Plinth\Core\Escape\EscapeRoute;
use Plinth\Core\Escape\RoomEscape;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('escape', 'Ways out of a building, from the worst place of every room', help: <<<'TEXT'
    Reads a plan document (docs/plan-format.md) whose doors say where they are exits: `exit` is `storey` or `final`. Answers for every room
    the way to the next exit, and to the next final one, from the place from which it is furthest; null where there is none:
      mm        its length: round walls and things, on stairs along their pitch
      places    storey, x and y where it begins and turns
      doors     what is passed, the exit with them; narrowestMm; against: those that open against who passes
      stairs    that are walked
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
        Json::write($output, ['rooms' => array_map(static fn (RoomEscape $r): array => [
            'storey' => $r->storey,
            'room' => $r->region->room?->id,
            'name' => $r->region->room?->name,
            'at' => $r->region->label,
            'toExit' => self::route($r->toExit),
            'toFinal' => self::route($r->toFinal),
            'second' => null === $r->second ? null : [
                'singleMm' => $r->second->singleMm,
                'degrees' => $r->second->degrees,
                ...self::route($r->second->route) ?? [],
            ],
        ], (new EscapePlan(PlanReader::read(Json::input($input))))->rooms())]);

        return self::SUCCESS;
    }

    /** @return array<string, mixed>|null */
    private static function route(?EscapeRoute $route): ?array
    {
        return null === $route ? null : [
            'mm' => $route->mm,
            'places' => array_map(static fn (array $p): array => ['storey' => $p[0], 'x' => $p[1][0], 'y' => $p[1][1]], $route->places),
            'doors' => $route->doors,
            'narrowestMm' => $route->narrowestMm,
            'against' => $route->against,
            'stairs' => $route->stairs,
            'exit' => $route->exit,
        ];
    }
}
