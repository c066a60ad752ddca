<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading;

use Plinth\Core\Geometry\Point;

/** A room's name as read from a drawing, with the area written under it. */
final readonly class ReadRoom
{
    /**
     * @param Point $at middle of the name, mm
     * @param array{float, float, float, float} $box round what was read, mm: left, bottom, right, top
     * @param float $confidence 0 to 1
     */
    public function __construct(public string $name, public ?float $areaM2, public Point $at, public array $box, public float $confidence)
    {
    }
}
