<?php

declare(strict_types=1);

namespace Plinth\Core\Drafting;

/**
 * How a line is drawn, by the basic types of ISO 128-2 and what buildings use them for. Lengths of their parts in line widths: dash 12,
 * long dash 24, gap 3, dot ½ or less (ISO 128-2, from memory).
 */
enum LineKind: string
{
    /** what is cut */
    case Wide = 'continuous wide';
    /** what is seen */
    case Narrow = 'continuous narrow';
    /** what is hidden, or lies above */
    case Dashed = 'dashed';
    /** axes and lines of symmetry */
    case LongDashDot = 'long-dashed dotted';
    /** where it is cut */
    case LongDashDotWide = 'long-dashed dotted wide';
    /** what stands beside, or was there before */
    case LongDashTwoDots = 'long-dashed double-dotted';
    case Dotted = 'dotted';

    private const DASH = 12.0;
    private const LONG_DASH = 24.0;
    private const GAP = 3.0;
    private const DOT = 0.5;

    /** @return list<float> drawn, not drawn, drawn …, in widths of the line; none for one that goes on */
    public function dashes(): array
    {
        $dot = [self::DOT, self::GAP];

        return match ($this) {
            self::Wide, self::Narrow => [],
            self::Dashed => [self::DASH, self::GAP],
            self::LongDashDot, self::LongDashDotWide => [self::LONG_DASH, self::GAP, ...$dot],
            self::LongDashTwoDots => [self::LONG_DASH, self::GAP, ...$dot, ...$dot],
            self::Dotted => $dot,
        };
    }

    /** Whether it is twice as wide as the others. */
    public function isWide(): bool
    {
        return self::Wide === $this || self::LongDashDotWide === $this;
    }
}
