<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Cli\WrongUsage;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Plan\Derivation\Derivation;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('export', 'A storey of a plan document to a file', help: <<<'TEXT'
    Reads a plan document (docs/plan-format.md), writes one storey in an open format, and answers {"file", "bytes", "storey", "walls"}.
    TEXT)]
final class ExportCommand extends Command
{
    protected function configure(): void
    {
        $this->addArgument('format', InputArgument::REQUIRED, 'dxf');
        $this->addOption('out', null, InputOption::VALUE_REQUIRED, 'the file to write');
        $this->addOption('storey', null, InputOption::VALUE_REQUIRED, 'its id; the first one without it');
        Json::option($this, 'the plan document');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $format = Json::text($input->getArgument('format'));
        if ('dxf' !== $format) {
            throw WrongUsage::unknownFormat($format);
        }
        $out = $input->getOption('out') ?? throw WrongUsage::missingOption('out');
        $wanted = $input->getOption('storey');
        foreach (PlanReader::read(Json::input($input))->storeys as $storey) {
            if (null === $wanted || $wanted === $storey->id) {
                $dxf = DxfWriter::write($storey, Derivation::of($storey));
                if (false === @file_put_contents(Json::text($out), $dxf)) {
                    throw WrongUsage::cannotWrite(Json::text($out));
                }
                Json::write($output, [
                    'file' => $out,
                    'bytes' => \strlen($dxf),
                    'storey' => $storey->id,
                    'walls' => \count($storey->walls),
                ]);

                return self::SUCCESS;
            }
        }
        throw WrongUsage::noStorey(Json::text($wanted));
    }
}
