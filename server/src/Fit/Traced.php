<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Source\Drawing;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** What a capability has traced over drawings, and what becomes of it when the fit under it moves. */
#[AutoconfigureTag]
interface Traced
{
    /** Moves what was traced over a drawing along with its picture: T_new ∘ T_old⁻¹. Thicknesses and widths stay as typed. */
    public function carry(Workspace $workspace, Drawing $drawing, PixelToMm $old, PixelToMm $next): void;

    /** @return list<Point> where it lay before this change, mm: what tells how far a move would take it */
    public function places(Workspace $workspace, Drawing $drawing): array;
}
