<?php

declare(strict_types=1);

namespace Plinth\Server\Source\DropIn;

use Psr\Clock\ClockInterface;
use Symfony\Component\Console\Attribute\AsCommand;

/** Stands for the scanner of the office: delivers the demo's sheets to the drop-in folder, one after the other. */
#[AsCommand('plinth:scan', 'The simulated scanner delivers its next page to the drop-in folder.')]
final readonly class SimulatedScanner
{
    private const SHEETS = 'demo/scanner';
    private const PAUSE_MICROSECONDS = 60_000;

    public function __construct(private DropInFolder $folder, private string $projectDir, private ClockInterface $clock)
    {
    }

    public function __invoke(): int
    {
        return $this->scan();
    }

    public function scan(): int
    {
        $sheets = glob($this->projectDir.'/'.self::SHEETS.'/*.{jpg,png,pdf,tif}', \GLOB_BRACE);
        if (false === $sheets || [] === $sheets) {
            return 1;
        }
        sort($sheets);
        $now = $this->clock->now();
        // The next sheet of the pile: they come round again and again.
        $sheet = $sheets[intdiv($now->getTimestamp(), 2) % \count($sheets)];
        $this->folder->deliver($sheet, $now->format('Y-m-d His ').basename($sheet), self::PAUSE_MICROSECONDS);

        return 0;
    }
}
