<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Projection\DrawnView;

/** A side or a section that sheets show. */
final readonly class SubjectSide
{
    /**
     * @param DrawnView|null $drawn what is seen; with what is hidden if any view shows it; null where nobody wants it drawn
     * @param list<Point> $cut where it is cut through the plan, from left to right as one looks; none of a side
     */
    public function __construct(public string $name, public ?DrawnView $drawn, public array $cut = [])
    {
    }
}
