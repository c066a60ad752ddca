<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/** What of a way out is held against a limit. */
enum EscapeMeasure: string
{
    /** to the next exit, be it of the storey */
    case ToExit = 'toExit';
    case ToFinal = 'toFinal';
    /** along which one has no choice between two ways */
    case Single = 'single';
    /** between two ways where they part, in degrees; all else is in mm */
    case Angle = 'angle';
    /** the narrowest that is passed */
    case Door = 'door';

    /** Whether it is to be at least its limit; others are to be at most theirs. */
    public function isLeast(): bool
    {
        return self::Angle === $this || self::Door === $this;
    }

    /** The largest limit of it that makes sense. */
    public function largest(): float
    {
        return self::Angle === $this ? 180.0 : 1e6;
    }
}
