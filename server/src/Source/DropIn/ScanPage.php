<?php

declare(strict_types=1);

namespace Plinth\Server\Source\DropIn;

use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\JobKind;
use Plinth\Server\Job\Lane;

/** Asks the simulated scanner for its next page. */
final readonly class ScanPage implements JobKind
{
    public function __construct(private SimulatedScanner $scanner)
    {
    }

    public static function name(): string
    {
        return 'scan-page';
    }

    public static function lane(): Lane
    {
        return Lane::Quick;
    }

    public function run(Job $job, Attempt $attempt): void
    {
        $this->scanner->scan();
    }
}
