<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/** Below what measures of geometry count as nothing, and which angles as flat: in one place, so that all of the core agrees. */
final class Tolerance
{
    /** Lines at a flatter angle are parallel, as far as doubles of building size can tell: the sine. */
    public const PARALLEL_SINE = 1e-9;
    /** What is shorter is no length but the round-off of one, mm. */
    public const ROUND_OFF_MM = 1e-9;
    /** What moves by less stays where it is, and bodies that lie on each other by less touch, mm. */
    public const STILL_MM = 1e-6;
    /** mm² that are no area but the round-off of one */
    public const ROUND_OFF_MM2 = 1e-6;
    /** Walls within this of each other's direction run straight on: 0.1°, the sine. */
    public const STRAIGHT_SINE = 0.002;
    /** Walls at a flatter angle do not end on each other, for where they meet runs off: 10°, the sine. */
    public const LANDING_SINE = 0.17;
}
