<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Geometry\Contour;

/** An area with a class of fire resistance: some rooms, with the walls between them, or what an outline goes round. */
final readonly class Enclosure
{
    /** mm²: an outline that goes round less goes round nothing */
    public const LEAST_MM2 = 100.0;

    /**
     * @param string $class its id
     * @param list<string> $rooms whose regions it is of, by id
     * @param Contour|null $outline along wall faces, or free, where it is of no rooms
     */
    public function __construct(
        public string $id,
        public string $storey,
        public string $class,
        public array $rooms = [],
        public ?Contour $outline = null,
    ) {
    }
}
