<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies;

/** A surface with its finish as it stands: triangles, where its pattern lies on them, and how large it is without its openings. */
final readonly class FinishedSurface
{
    /**
     * @param string $id of the surface
     * @param list<array{float, float, float}> $places mm, three for each triangle, counter-clockwise as one looks at it
     * @param list<array{float, float}> $pattern for each place, where of the pattern it lies, mm
     */
    public function __construct(
        public string $id,
        public string $finish,
        public string $storey,
        public float $areaMm2,
        public array $places,
        public array $pattern,
    ) {
    }
}
