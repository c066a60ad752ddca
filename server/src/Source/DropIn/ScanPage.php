<?php

declare(strict_types=1);

namespace Plinth\Server\Source\DropIn;

/** Asks the simulated scanner for its next page. */
final readonly class ScanPage
{
}
