<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/** What of a stair is held against a limit. */
enum StairMeasure: string
{
    case Rise = 'rise';
    case Going = 'going';
    /** twice a rise and a going */
    case Stride = 'stride';
    /** of its flights, in degrees; all else is in mm */
    case Pitch = 'pitch';
    case Width = 'width';
    case Headroom = 'headroom';
    /** of a handrail over the line of nosings */
    case Handrail = 'handrail';
    /** from which the floor under it counts in full */
    case Under = 'under';
}
