<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation\Internal;

use Plinth\Core\Geometry\Clip;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Finding;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Derivation\Unplaced;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Network\Enclosures;
use Plinth\Core\Plan\Network\Face;
use Plinth\Core\Plan\Network\Leak;
use Plinth\Core\Plan\Network\LeakSearch;
use Plinth\Core\Plan\Network\Neighbourhood;
use Plinth\Core\Units\Length;

/**
 * What the bodies leave of faces, with the names and the columns that stand there.
 *
 * @internal
 *
 * @phpstan-import-type Shape from Overlay
 */
final class Regions
{
    /** Less than a square centimetre between walls that nearly lie on each other is no region. */
    private const LEAST_REGION_MM2 = 100.0;

    private ?LeakSearch $leaks = null;

    public function __construct(
        private readonly Neighbourhood $plan,
        private readonly Layer $layer,
        private readonly Enclosures $enclosures,
    ) {
    }

    /**
     * What the bodies leave of a face: one region where they keep to their joints; none or several where they do not.
     *
     * @param list<Face> $islands outer faces of what stands free inside
     *
     * @return list<Region>
     */
    public function of(Face $face, array $islands): array
    {
        $walls = [];
        $isPlain = true;
        foreach ([$face, ...$islands] as $ring) {
            foreach ($ring->halves as $h) {
                $walls[$this->layer->network->edges[$h >> 1]['wall']] = true;
                $isPlain = $isPlain && $this->layer->bodies->isPlain($h >> 1);
            }
        }
        $walls = array_map(strval(...), array_keys($walls));
        $rooms = $this->roomsIn($face, $islands);
        if ($isPlain) {
            $area = $face->area;
            $holes = [];
            foreach ($islands as $island) {
                if ([] !== $island->faces) {
                    $area += $island->area; // clockwise: negative
                    $holes[] = $island->faces;
                }
            }

            return [] === $face->faces || $area <= 0.0 ? [] : [$this->region($face->faces, $holes, $area, $walls, $rooms)];
        }
        $shapes = array_values(array_filter(
            $this->layer->bodies->clear($face, $islands),
            static fn (array $shape): bool => Overlay::area([$shape]) > self::LEAST_REGION_MM2,
        ));
        // The largest comes last; it takes the names that stand in no other.
        $regions = [];
        foreach ($shapes as $i => $shape) {
            $inside = array_filter(
                $rooms,
                static fn (Room $room): bool => $i === \count($shapes) - 1 || self::holds($shape, $room->anchor),
            );
            $rooms = array_diff_key($rooms, $inside);
            $regions[] = $this->region($shape['outer'], $shape['holes'], Overlay::area([$shape]), $walls, array_values($inside));
        }

        return $regions;
    }

    /** The region that holds a room's anchor, or why none does. */
    public function place(Room $room): Region|Unplaced
    {
        $face = $this->enclosures->at($room->anchor->x, $room->anchor->y);
        foreach (null === $face ? [] : $this->of($face, $this->enclosures->inside($face)) as $region) {
            if ($region->names($room)) {
                return $region;
            }
        }
        $leak = null === $face ? $this->leak($room) : null;

        return new Unplaced($room, $leak, null !== $leak
            ? new Finding(
                'leak',
                [$room->id],
                $leak->neck[0],
                \sprintf('%s does not close: %s are open here.', $room->name, Length::told($leak->gapMm)),
            )
            : new Finding('room-open', [$room->id], $room->anchor->toArray(), \sprintf('%s has no walls round it yet.', $room->name)));
    }

    /**
     * @param non-empty-list<array{float, float}> $polygon
     * @param list<non-empty-list<array{float, float}>> $holes
     * @param float $area mm², with arcs as arcs
     * @param list<string> $walls
     * @param list<Room> $rooms that are named in it
     */
    private function region(array $polygon, array $holes, float $area, array $walls, array $rooms): Region
    {
        $columns = 0.0;
        [$x1, $y1, $x2, $y2] = $bounds = Polygon::bounds($polygon);
        foreach ($this->plan->columns($bounds) as $column) {
            [$left, $bottom, $right, $top] = $column->box();
            foreach ($right < $x1 || $left > $x2 || $top < $y1 || $bottom > $y2 ? [] : [$polygon, ...$holes] as $ring) {
                $columns += match (self::boxIn($ring, $left, $bottom, $right, $top)) {
                    true => $column->area() * (Polygon::area($ring) > 0.0 ? 1.0 : -1.0),
                    false => 0.0,
                    null => Clip::area($ring, $column->outline()),
                };
            }
        }
        $name = null;
        $findings = [];
        $leaks = [];
        foreach ($rooms as $room) {
            if (null === $name) {
                $name = $room;
            } else {
                $leak = $this->leak($room, $name->anchor);
                $findings[] = null === $leak
                    ? new Finding(
                        'two-names',
                        [$name->id, $room->id],
                        $room->anchor->toArray(),
                        \sprintf('%s and %s name the same room.', $name->name, $room->name),
                    )
                    : new Finding(
                        'two-names',
                        [$name->id, $room->id],
                        $leak->neck[0],
                        \sprintf('%s runs into %s: %s are open between them.', $room->name, $name->name, Length::told($leak->gapMm)),
                    );
                $leaks = [...$leaks, ...(null === $leak ? [] : [$leak])];
            }
        }
        $standsIn = null !== $name && self::holds(['outer' => $polygon, 'holes' => $holes], $name->anchor);
        $label = $standsIn ? $name->anchor->toArray() : Polygon::labelPoint($polygon, $holes);

        return new Region(
            $name,
            $polygon,
            $holes,
            $area - $columns,
            $columns,
            $walls,
            $label,
            Clear::through($label, [$polygon, ...$holes]),
            $findings,
            $leaks,
        );
    }

    /**
     * @param list<Face> $islands
     *
     * @return list<Room> in the order of their ids
     */
    private function roomsIn(Face $face, array $islands): array
    {
        $rooms = [];
        [$x1, $y1, $x2, $y2] = Polygon::bounds([...$face->centre, $face->centre[0]]);
        foreach ($this->plan->rooms([$x1, $y1, $x2, $y2]) as $room) {
            [$x, $y] = $room->anchor->toArray();
            if ($x < $x1 || $x > $x2 || $y < $y1 || $y > $y2 || !Polygon::contains($face->centre, $x, $y)) {
                continue;
            }
            foreach ($islands as $island) {
                if (Polygon::contains($island->centre, $x, $y)) {
                    continue 2;
                }
            }
            $rooms[$room->id] = $room;
        }
        ksort($rooms, \SORT_STRING);

        return array_values($rooms);
    }

    /** @param Shape $shape */
    private static function holds(array $shape, Point $point): bool
    {
        foreach ($shape['holes'] as $hole) {
            if (Polygon::contains($hole, $point->x, $point->y)) {
                return false;
            }
        }

        return Polygon::contains($shape['outer'], $point->x, $point->y);
    }

    /**
     * Whether a box lies wholly within a ring, or outside it; null where the ring may pass through.
     *
     * @param non-empty-list<array{float, float}> $ring
     */
    private static function boxIn(array $ring, float $left, float $bottom, float $right, float $top): ?bool
    {
        [$px, $py] = $ring[\count($ring) - 1];
        foreach ($ring as [$x, $y]) {
            if (!(
                ($x < $left && $px < $left)
                || ($x > $right && $px > $right)
                || ($y < $bottom && $py < $bottom)
                || ($y > $top && $py > $top)
            )) {
                return null;
            }
            [$px, $py] = [$x, $y];
        }

        return Polygon::contains($ring, $left, $bottom);
    }

    private function leak(Room $from, ?Point $to = null): ?Leak
    {
        return ($this->leaks ??= new LeakSearch($this->layer->pieces, $this->layer->network))->from($from, $to);
    }
}
