<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Cli\Picture\LineFiles;
use Plinth\Cli\WrongUsage;
use Plinth\Core\Exchange\ExactLine;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Exchange\Zip\ZipReader;
use Plinth\Core\Flow\ProposedStorey;
use Plinth\Core\Ink\Walls\DrawnWalls;
use Plinth\Core\Plan\Model\Plan;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('import', 'A file as a plan document', help: <<<'TEXT'
    Answers a plan document (docs/plan-format.md) that `export` takes. Of an archive (docs/archive-format.md) it is the one in it; a plan
    document is looked through and told anew. Of a dxf, svg or pdf that a program has drawn it has the walls and openings that its lines
    show, with their ends, as one storey: a dxf that says its unit is as large as it says, all others are drawn at --scale.
    TEXT)]
final class ImportCommand extends Command
{
    /** bytes of all that is in an archive, and of its plan document */
    private const MOST = [2_000_000_000, 64_000_000];
    private const PLAN = 'plan.json';
    private const DOUBT = 'Few openings show: whether these lines are walls is not sure.';
    private const SCALES = ['options' => ['min_range' => 1, 'max_range' => 10_000]];

    public function __construct(private readonly LineFiles $files)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('file', InputArgument::REQUIRED, 'zip, json, dxf, svg or pdf');
        $this->addOption('scale', null, InputOption::VALUE_REQUIRED, '1 : so much, of what does not say how large it is');
        $this->addOption('page', null, InputOption::VALUE_REQUIRED, 'of a pdf, from 1', '1');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $file = Json::text($input->getArgument('file'));
        $head = @file_get_contents($file, false, null, 0, 4);
        if (false === $head) {
            throw WrongUsage::cannotRead($file, 'file');
        }
        [$plan, $remarks] = match (true) {
            str_starts_with($head, 'PK') => [PlanReader::read(ZipReader::open($file, self::MOST[0])->text(self::PLAN, self::MOST[1])), []],
            str_starts_with(ltrim($head), '{') => [PlanReader::read((string) file_get_contents($file)), []],
            default => $this->drawn($file, $input),
        };
        Json::write($output, PlanWriter::document($plan, $remarks));

        return self::SUCCESS;
    }

    /** @return array{Plan, list<string>} and what whoever goes on with it should know */
    private function drawn(string $file, InputInterface $input): array
    {
        $page = filter_var($input->getOption('page'), \FILTER_VALIDATE_INT, ['options' => ['min_range' => 1]]);
        $read = false === $page ? null : $this->files->read($file, $page);
        if (null === $read || [] === $read->lines) {
            throw WrongUsage::noLines($file);
        }
        $told = $read->isTrue ? 1 : $input->getOption('scale') ?? throw WrongUsage::missingOption('scale');
        $scale = filter_var($told, \FILTER_VALIDATE_INT, self::SCALES);
        if (false === $scale) {
            throw WrongUsage::noScale(Json::text($told));
        }
        $walls = DrawnWalls::in(array_map(
            static fn (array $l): array => ExactLine::mapped($l, static fn (float $x, float $y): array => [$scale * $x, $scale * $y]),
            $read->lines,
        ));

        $plan = new Plan([ProposedStorey::of($walls->walls, $walls->openings)]);

        return [$plan, $walls->speakForThemselves() ? [] : [self::DOUBT]];
    }
}
