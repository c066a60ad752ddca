<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

/**
 * A row of lettering that may be a figure, with all that it may say and all that it may measure.
 *
 * @internal
 */
final readonly class FigureCandidate
{
    /** logarithm of how likely a figure is that stands beside no line: it measures nothing */
    private const WITHOUT_SPAN = -9.0;

    /**
     * @param bool $isTurned read against its direction
     * @param bool $isUpright it runs more along the second axis of the drawing's grid than along the first
     * @param non-empty-list<Reading> $readings the likeliest first
     * @param list<Span> $spans the likeliest first
     * @param float $surer by how much likelier it is than read against its direction, or along it if it is turned; a logarithm
     */
    public function __construct(
        public Lettering $row,
        public bool $isTurned,
        public bool $isUpright,
        public array $readings,
        public array $spans,
        public float $surer,
    ) {
    }

    /** How likely it is a figure with a span, a logarithm. */
    public function worth(): float
    {
        return $this->readings[0]->likely + ($this->spans[0]->likely ?? self::WITHOUT_SPAN);
    }
}
