<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Cli\WrongUsage;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Exchange\BodiesDocument\ViewWriter;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Projection\Projection;
use Plinth\Core\Projection\View;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('view', 'A plan document to a side or a section of its building', help: <<<'TEXT'
    Reads a plan document (docs/plan-format.md). Answers the lines that are seen along a line of the plan, from left to right as one looks:
    x along it, y the height, mm; with --cut what it cuts as well. As dxf it writes them to a file and answers how many there are.
    TEXT)]
final class ViewCommand extends Command
{
    protected function configure(): void
    {
        $this->addOption('line', null, InputOption::VALUE_REQUIRED, 'places along it, "x y; x y", mm; a cutting line may have jogs');
        $this->addOption('cut', null, InputOption::VALUE_NONE, 'a section instead of a side');
        $this->addOption('depth', null, InputOption::VALUE_REQUIRED, 'mm behind the line that are shown; all there is without it');
        $this->addOption('hidden', null, InputOption::VALUE_NONE, 'with what is hidden');
        $this->addOption('dxf', null, InputOption::VALUE_REQUIRED, 'a file to write instead');
        Json::option($this, 'the plan document');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $plan = PlanReader::read(Json::input($input));
        $line = self::places(Json::text($input->getOption('line') ?? throw WrongUsage::missingOption('line')));
        $depth = $input->getOption('depth');
        $behind = null === $depth ? \INF : (float) Json::text($depth);
        $looks = true === $input->getOption('cut') ? View::section($line, $behind) : View::side($line[0], $line[1], $behind);
        $view = Projection::of(BuildingBodies::of($plan), $looks, true === $input->getOption('hidden'));
        $file = $input->getOption('dxf');
        if (null === $file) {
            Json::write($output, ViewWriter::view($view));

            return self::SUCCESS;
        }
        $written = DxfWriter::view($view);
        if (false === @file_put_contents(Json::text($file), $written)) {
            throw WrongUsage::cannotWrite(Json::text($file));
        }
        Json::write($output, [
            'file' => $file, 'bytes' => \strlen($written), 'lines' => \count($view->lines), 'faces' => \count($view->faces),
        ]);

        return self::SUCCESS;
    }

    /** @return non-empty-list<Point> two or more */
    private static function places(string $text): array
    {
        $places = [];
        foreach (explode(';', $text) as $part) {
            $numbers = preg_split('/[\s,]+/', trim($part));
            if (false === $numbers || 2 !== \count($numbers) || !is_numeric($numbers[0]) || !is_numeric($numbers[1])) {
                throw WrongUsage::noLine($text);
            }
            $places[] = new Point((float) $numbers[0], (float) $numbers[1]);
        }

        return \count($places) < 2 ? throw WrongUsage::noLine($text) : $places;
    }
}
