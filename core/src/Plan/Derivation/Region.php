<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation;

use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Network\Leak;

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
     * @param list<Leak> $leaks where other rooms that are named in it run into it
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
        public array $leaks = [],
    ) {
        // Wherever its rings begin, and whichever hole was found first.
        $rings = array_map(self::text(...), $holes);
        sort($rings, \SORT_STRING);
        $named = array_map(static fn (Finding $f): string => implode(',', $f->things).$f->message, $findings);
        // A wall that is split or joined leaves the rings as they are, and yet others bound them.
        sort($walls, \SORT_STRING);
        $name = null === $room ? '' : $room->id.self::text([$room->anchor->toArray()]);
        $this->key = hash(
            'xxh128',
            implode('|', [self::text($polygon), ...$rings, \sprintf('%.1f', $netAreaMm2), implode(',', $walls), $name, ...$named]),
        );
    }

    /** Whether a place lies in it. */
    public function holds(float $x, float $y): bool
    {
        foreach ($this->holes as $hole) {
            if (Polygon::contains($hole, $x, $y)) {
                return false;
            }
        }

        return Polygon::contains($this->polygon, $x, $y);
    }

    /** Whether it is named by a room, be it one name of several. */
    public function names(Room $room): bool
    {
        return $this->room?->id === $room->id || [] !== array_filter(
            $this->findings,
            static fn (Finding $f): bool => \in_array($room->id, $f->things, true),
        );
    }

    /** @param non-empty-list<array{float, float}> $ring */
    private static function text(array $ring): string
    {
        // Noise of the last digits makes no other region; a thousandth of a millimetre does.
        $points = array_map(static fn (array $p): string => \sprintf('%.3f,%.3f', round($p[0], 3) + 0.0, round($p[1], 3) + 0.0), $ring);
        $first = array_search(min($points), $points, true);

        return implode(' ', [...\array_slice($points, (int) $first), ...\array_slice($points, 0, (int) $first)]);
    }
}
