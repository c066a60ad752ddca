<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/** Scales of reduction that are recommended (ISO 5455): 1, 2 and 5, times ten as often as is wanted. */
final class PrintScale
{
    /** 1 : so much, from the largest drawing to the smallest */
    public const RECOMMENDED = [1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0, 200.0, 500.0, 1000.0, 2000.0, 5000.0, 10_000.0];
}
