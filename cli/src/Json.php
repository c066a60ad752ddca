<?php

declare(strict_types=1);

namespace Plinth\Cli;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Units\LengthUnit;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

/** Documents in and out. */
final class Json
{
    /** A command that reads a document has this option. */
    public static function option(Command $command, string $what): void
    {
        $command->addOption('in', null, InputOption::VALUE_REQUIRED, $what.'; standard input without it');
    }

    public static function unitOption(Command $command): void
    {
        $command->addOption('unit', null, InputOption::VALUE_REQUIRED, 'of figures without one: mm, cm, m, ft or in', 'mm');
    }

    public static function unit(InputInterface $input): LengthUnit
    {
        $unit = self::text($input->getOption('unit'));

        return LengthUnit::tryFrom($unit) ?? throw WrongUsage::unknownUnit($unit);
    }

    /** The text of the document that a command reads. */
    public static function input(InputInterface $input): string
    {
        $file = $input->getOption('in') ?? 'php://stdin';
        $text = @file_get_contents(self::text($file));

        return false === $text ? throw WrongUsage::cannotRead(self::text($file), 'in') : $text;
    }

    public static function document(InputInterface $input): JsonValue
    {
        return JsonValue::parse(self::input($input));
    }

    /** @param array<string, mixed> $data */
    public static function write(OutputInterface $output, array $data): void
    {
        $text = json_encode($data, \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE | \JSON_THROW_ON_ERROR);
        $output->writeln($text, OutputInterface::OUTPUT_RAW);
    }

    public static function text(mixed $value): string
    {
        return \is_string($value) ? $value : '';
    }
}
