<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Core\Units\LengthParser;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('length', 'A length as it is written on drawings', help: <<<'TEXT'
    Reads feet and inches, metres, sums, differences and multiples: 11'-7 1/2", 3.6 m, 2400+115, 4 x 75. Answers {"mm", "stepMm"}: the
    length, and the step that it was written to.
    TEXT)]
final class LengthCommand extends Command
{
    protected function configure(): void
    {
        $this->addArgument('text', InputArgument::REQUIRED | InputArgument::IS_ARRAY, 'the length');
        Json::unitOption($this);
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $words = $input->getArgument('text');
        $length = LengthParser::parse(implode(' ', array_map(Json::text(...), \is_array($words) ? $words : [])), Json::unit($input));
        Json::write($output, ['mm' => $length->mm, 'stepMm' => $length->stepMm]);

        return self::SUCCESS;
    }
}
