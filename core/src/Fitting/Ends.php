<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

/** What a length runs between, or what its picks were put on. */
enum Ends: string
{
    case OuterFace = 'outer face';
    case InnerFace = 'inner face';
    case Axis = 'axis';
    case Centre = 'centre';

    /**
     * A figure runs between one kind of lines and the picks lie on another: by how much longer than the figure the
     * distance between the picks is. Reading inside for outside costs a wall at either end together.
     *
     * @param float $wallMm thickness of the walls at the ends
     */
    public function allowanceMm(self $picked, float $wallMm): float
    {
        return 2.0 * $wallMm * ($picked->stands() - $this->stands());
    }

    /** Where it stands off the axis, in wall thicknesses, away from what is measured inward. */
    private function stands(): float
    {
        return match ($this) {
            self::OuterFace => 0.5,
            self::InnerFace => -0.5,
            self::Axis, self::Centre => 0.0,
        };
    }
}
