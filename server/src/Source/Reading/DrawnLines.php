<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Reading;

use Plinth\Core\Exchange\ExactLine;

/**
 * A line drawing ready to be shown: its page, the SVG to draw it from with the scale to draw it at, and its lines in page pixels.
 *
 * @phpstan-import-type Line from ExactLine
 */
final readonly class DrawnLines
{
    /** @param list<Line> $lines */
    public function __construct(public FoundPage $page, public string $svg, public float $scale, public array $lines)
    {
    }
}
