<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

/**
 * A stretch of wall as it shows: two faces that run beside each other with the same filling between them.
 *
 * Positions count along the direction (from, to) and across it (at: the middle between the faces), mm of an aligned raster.
 *
 * @internal
 */
final class Strip
{
    /**
     * @param list<array{float, float}> $parts where the wall itself was seen, from and to, in order; between them it has gaps
     * @param bool $plumb runs across the raster's direction
     * @param float $tone mean ink between the faces, 0 to 255
     * @param float|null $pen how wide the thinner of its two lines is by its ink, mm; null where a filling hides it
     * @param float $wear part of it that is filled otherwise, 0 to 1
     * @param float|null $rim how wide the thinner of the lines along hatching is by its ink, mm
     * @param float $even part of its scan lines where both its edges were seen, 0 to 1: letters beside each other have gaps
     */
    public function __construct(
        public float $from,
        public float $to,
        public float $at,
        public float $thickness,
        public readonly Filling $filling,
        public readonly bool $plumb,
        public array $parts,
        public float $tone,
        public ?float $pen = null,
        public float $wear = 0.0,
        public readonly ?float $rim = null,
        public float $even = 1.0,
    ) {
    }

    public function length(): float
    {
        return $this->to - $this->from;
    }

    /** How much of it was seen, mm. */
    public function seen(): float
    {
        return array_sum(array_map(static fn (array $p): float => $p[1] - $p[0], $this->parts));
    }
}
