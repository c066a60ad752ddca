<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/** What a project asks of its ways out, and where it has that from. None is law here. */
final readonly class EscapeLimit
{
    /**
     * @param float $bound mm, degrees of an angle: the least or the most, by its measure
     * @param string $standing where it comes from, in its author's words
     *
     * @throws UnusableValue
     */
    public function __construct(public EscapeMeasure $measure, public float $bound, public string $standing)
    {
        Checked::size("escape limit {$measure->value}", $bound, $measure->largest());
    }
}
