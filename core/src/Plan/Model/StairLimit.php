<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/** What a project asks of one measure of its stairs, and where it has that from. */
final readonly class StairLimit
{
    /**
     * @param float|null $least mm, degrees of a pitch; null where only the most is bound
     * @param string $standing where these come from, in its author's words
     *
     * @throws UnusableValue
     */
    public function __construct(public StairMeasure $measure, public ?float $least, public ?float $most, public string $standing)
    {
        Checked::size("stair limit {$measure->value}/least", $least);
        Checked::size("stair limit {$measure->value}/most", $most);
        if ((null === $least && null === $most) || ($least ?? 0.0) > ($most ?? \INF)) {
            throw UnusableValue::outOfRange("stair limit {$measure->value}", $least ?? 0.0, 'a least, a most, or both in this order');
        }
    }
}
