<?php

declare(strict_types=1);

namespace Plinth\Core\Plan;

/** A region enclosed by walls and dividers, along their inner faces, with the room that names it if one does. */
final readonly class Region
{
    /** The same for the same region, whoever derived it. */
    public string $key;

    /**
     * @param non-empty-list<array{float, float}> $polygon counter-clockwise; arcs as chords
     * @param list<non-empty-list<array{float, float}>> $holes what stands free inside, clockwise
     * @param float $netAreaMm2 with arcs as arcs, columns taken off
     * @param float $columnsMm2 what was taken off
     * @param list<string> $walls that bound it, and dividers, by id
     * @param array{float, float} $label a point well inside
     * @param array{float, float} $clear clear width and depth through that point, along and across the region's longest side, mm
     * @param list<Finding> $findings
     */
    public function __construct(
        public ?Room $room,
        public array $polygon,
        public array $holes,
        public float $netAreaMm2,
        public float $columnsMm2,
        public array $walls,
        public array $label,
        public array $clear,
        public array $findings = [],
    ) {
        $numbers = [$netAreaMm2];
        foreach ([$polygon, ...$holes] as $ring) {
            foreach ($ring as [$x, $y]) {
                // Noise of the last digits makes no other region.
                $numbers[] = round($x, 3) + 0.0;
                $numbers[] = round($y, 3) + 0.0;
            }
        }
        $numbers[0] = round($netAreaMm2, 1) + 0.0;
        $this->key = hash('xxh128', pack('e*', ...$numbers).($room->id ?? '').implode(',', array_map(static fn (Finding $f): string => implode(',', $f->things), $findings)));
    }
}
