<?php

declare(strict_types=1);

namespace Plinth\Core\Stairs;

use Plinth\Core\Geometry\Point;

/** Something about a stair that does not hold. */
final readonly class StairFinding
{
    /**
     * @param string $code stable, in words joined by hyphens
     * @param string $message what is wrong, by how much, and what would mend it
     * @param int|null $risers that would mend it, where a number of them would
     */
    public function __construct(
        public string $code,
        public string $stair,
        public Point $at,
        public string $message,
        public ?int $risers = null,
    ) {
    }
}
