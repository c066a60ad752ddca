<?php

declare(strict_types=1);

namespace Plinth\Core\Site;

use Plinth\Core\Geometry\Point;

/** A place of the plan whose coordinates in a map are known. */
final readonly class MapPoint
{
    /**
     * @param Point $at mm of the plan
     * @param float $east m
     * @param float $north m
     * @param float|null $height m of the project's zero level there; null where it is not known
     */
    public function __construct(public Point $at, public float $east, public float $north, public ?float $height = null)
    {
    }
}
