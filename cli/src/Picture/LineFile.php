<?php

declare(strict_types=1);

namespace Plinth\Cli\Picture;

/** The exact lines of a drawing that a program has made: x, y to x, y, y up, and the number of the pen. */
final readonly class LineFile
{
    /**
     * @param list<array{float, float, float, float, int}> $lines mm; of the paper, unless they are true
     * @param bool $isTrue whether the file says how large things are
     */
    public function __construct(public array $lines, public bool $isTrue)
    {
    }
}
