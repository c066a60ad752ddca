<?php

declare(strict_types=1);

namespace Plinth\Cli\Picture;

use Plinth\Core\Exchange\ExactLine;

/**
 * The exact lines of a drawing that a program has made, y up.
 *
 * @phpstan-import-type Line from ExactLine
 */
final readonly class LineFile
{
    /**
     * @param list<Line> $lines mm; of the paper, unless they are true
     * @param bool $isTrue whether the file says how large things are
     */
    public function __construct(public array $lines, public bool $isTrue)
    {
    }
}
