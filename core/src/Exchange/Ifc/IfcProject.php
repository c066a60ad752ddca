<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Ifc;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Site\Georeference;

/** What a file of a building says of it beside the plan. */
final readonly class IfcProject
{
    /**
     * @param string $id of the project: what names things for good begins with it
     * @param string $stamp when it was as it is, ISO 8601 without zone
     * @param array<string, string> $buildUps names of what walls are built of, by id of the wall
     * @param array<string, string> $numbers of doors and windows, by id
     * @param list<Contour> $boundaries of the site, mm of the plan
     * @param float|null $bearing of up on the plan, degrees clockwise from north; null where nobody has said
     * @param array<string, string> $tracedFrom what each storey was traced from and how true that is, by id
     * @param Georeference|null $georeference where the plan lies on the earth
     */
    public function __construct(
        public string $id,
        public string $name,
        public string $stamp = '1970-01-01T00:00:00',
        public array $buildUps = [],
        public array $numbers = [],
        public array $boundaries = [],
        public ?float $bearing = null,
        public array $tracedFrom = [],
        public ?Georeference $georeference = null,
    ) {
    }
}
