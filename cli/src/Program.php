<?php

declare(strict_types=1);

namespace Plinth\Cli;

use Plinth\Cli\Command\BodiesCommand;
use Plinth\Cli\Command\DeriveCommand;
use Plinth\Cli\Command\EnclosuresCommand;
use Plinth\Cli\Command\EscapeCommand;
use Plinth\Cli\Command\ExportCommand;
use Plinth\Cli\Command\FitCommand;
use Plinth\Cli\Command\FlowCommand;
use Plinth\Cli\Command\ImportCommand;
use Plinth\Cli\Command\LengthCommand;
use Plinth\Cli\Command\ProbeCommand;
use Plinth\Cli\Command\ReadCommand;
use Plinth\Cli\Command\RoofCommand;
use Plinth\Cli\Command\SettleCommand;
use Plinth\Cli\Command\SkewCommand;
use Plinth\Cli\Command\TraverseCommand;
use Plinth\Cli\Command\ViewCommand;
use Plinth\Cli\Command\WallsCommand;
use Plinth\Cli\Picture\LineFiles;
use Plinth\Cli\Picture\Pictures;
use Plinth\Cli\Picture\Printer;
use Plinth\Cli\Picture\Words;
use Plinth\Core\Fault\Fault;
use Symfony\Component\Console\Application;
use Symfony\Component\Console\Exception\CommandNotFoundException;
use Symfony\Component\Console\Exception\ExceptionInterface;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

/**
 * The core for scripts and batch work: JSON in, one JSON document out. Exit 0; 2 for wrong input; 1 for a failure of ours. What is
 * wrong is told as JSON too, with code, words and place.
 */
final class Program extends Application
{
    private const WRONG_INPUT = 2;
    private const FAILURE = 1;

    public function __construct(Pictures $pictures, Words $words, Printer $printer, LineFiles $lines)
    {
        parent::__construct('plinth', '1');
        $this->setAutoExit(false);
        $this->setCatchExceptions(false);
        foreach ([
            new LengthCommand(),
            new FitCommand(),
            new TraverseCommand(),
            new RoofCommand(),
            new DeriveCommand(),
            new BodiesCommand(),
            new EnclosuresCommand(),
            new EscapeCommand(),
            new ViewCommand(),
            new SettleCommand(),
            new ExportCommand($printer),
            new ImportCommand($lines),
            new SkewCommand($pictures),
            new ProbeCommand($pictures),
            new ReadCommand($pictures, $words),
            new WallsCommand($pictures),
            new FlowCommand($pictures, $words),
        ] as $command) {
            $this->addCommand($command);
        }
    }

    public function doRun(InputInterface $input, OutputInterface $output): int
    {
        try {
            return parent::doRun($input, $output);
        } catch (WrongUsage $e) {
            return self::told($output, 'usage', $e->getMessage(), $e->at);
        } catch (Fault $e) {
            return self::told($output, $e->why(), $e->getMessage(), $e->at());
        } catch (CommandNotFoundException $e) {
            return self::told($output, 'usage', $e->getMessage(), (string) $input->getFirstArgument());
        } catch (ExceptionInterface $e) {
            return self::told($output, 'usage', $e->getMessage(), '');
        } catch (\Throwable $e) {
            return self::told($output, 'failure', $e->getMessage(), $e->getFile().':'.$e->getLine(), self::FAILURE);
        }
    }

    private static function told(OutputInterface $output, string $code, string $message, string $at, int $exit = self::WRONG_INPUT): int
    {
        Json::write($output, ['error' => ['code' => $code, 'message' => $message, 'at' => $at]]);

        return $exit;
    }
}
