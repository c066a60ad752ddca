<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

/**
 * One way to take a figure: one of its readings with one of its spans.
 *
 * @internal
 */
final readonly class Way
{
    /** logarithm of the mm that it says */
    public float $mm;
    /** length of its span, px of the ink */
    public float $long;

    /**
     * @param int $of which figure's it is
     * @param array{float, float, float, float} $ends x and y of one end of the span, and of the other, in the frame of FigureMapping
     * @param float $likely logarithm of how likely it is
     */
    public function __construct(
        public int $of,
        public FigureCandidate $figure,
        public Reading $reading,
        public Span $span,
        public array $ends,
        public float $likely,
    ) {
        $this->mm = log($reading->mm);
        $this->long = $span->length();
    }

    /** Whether two are one lettering found twice, or one span measured twice. */
    public function isSameAs(self $other): bool
    {
        return $this->figure->row->overlaps($other->figure->row) || $this->span->apart($other->span) < $this->figure->row->height();
    }
}
