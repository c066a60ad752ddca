<?php

declare(strict_types=1);

namespace Plinth\Core\Plan;

use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Internal\Faces;
use Plinth\Core\Plan\Internal\LeakSearch;
use Plinth\Core\Plan\Internal\Network;

/**
 * Derives bodies, rooms, leaks and findings from a storey.
 *
 * Input may hold: walls at any angle and of any thickness, ends that meet, stop inside another wall's body or miss it,
 * crossings, walls on top of each other, groups inside rooms of others, openings that do not fit, anchors anywhere.
 * Output always: outlines and regions as closed rings (outer counter-clockwise, holes clockwise, first point not
 * repeated), one region per enclosed space that is wider than its walls, every flaw as a finding with its place.
 *
 * Source of the areas' names: ISO 9836. Own derivation otherwise; the tests hold areas against GEOS.
 */
final class Derivation
{
    public static function of(Storey $storey): DerivedStorey
    {
        $findings = [];
        $walls = [];
        foreach ($storey->walls as $wall) {
            if ($wall->length() <= Wall::JOIN_MM) {
                $findings[] = new Finding('wall-of-no-length', [$wall->id], $wall->from->toArray(), 'This wall has no length: remove it, or move one of its ends.');
            } else {
                $walls[] = $wall;
            }
        }
        $network = Network::of($walls);
        foreach ($network->overlaps as [$first, $second, $at]) {
            $findings[] = new Finding('walls-overlap', [$first, $second], $at, 'Two walls lie on each other here: remove one of them.');
        }
        $faces = Faces::of($network);
        foreach ($faces->tooShort as $wall => $at) {
            $findings[] = new Finding('wall-too-short', [$wall], $at, 'This wall is shorter than its neighbours are thick, so its faces cross.');
        }
        $regions = self::regions($faces);
        [$named, $leaks, $roomFindings] = self::nameRooms($storey, $walls, $regions);
        [$openings, $openingFindings] = self::openings($storey, $network);
        $outlines = self::outlines($faces);

        return new DerivedStorey($storey->id, $outlines, $named, $openings, $leaks, [...$findings, ...$roomFindings, ...$openingFindings], self::areas($outlines, $named, $faces));
    }

    /** @return list<Region> largest last, so that a room inside another is met first */
    private static function regions(Faces $faces): array
    {
        $order = array_keys($faces->bounded);
        usort($order, static fn (int $a, int $b): int => $faces->bounded[$a]['centreArea'] <=> $faces->bounded[$b]['centreArea']);
        $bounds = array_map(static fn (array $f): array => [] === $f['centre'] ? [0.0, 0.0, 0.0, 0.0] : Polygon::bounds($f['centre']), $faces->bounded);
        $holes = array_fill(0, \count($faces->bounded), []);
        foreach ($faces->outer as $island) {
            if ([] === $island['centre']) {
                continue;
            }
            [$x, $y] = $island['centre'][0];
            foreach ($order as $i) {
                [$x1, $y1, $x2, $y2] = $bounds[$i];
                $face = $faces->bounded[$i];
                if ($face['component'] !== $island['component'] && $x >= $x1 && $x <= $x2 && $y >= $y1 && $y <= $y2 && Polygon::contains($face['centre'], $x, $y)) {
                    if ([] !== $island['faces']) {
                        $holes[$i][] = $island['faces'];
                    }
                    break;
                }
            }
        }
        $regions = [];
        foreach ($order as $i) {
            $ring = $faces->bounded[$i]['faces'];
            $area = Polygon::area($ring);
            foreach ($holes[$i] as $hole) {
                $area += Polygon::area($hole); // clockwise: negative
            }
            // Walls nearer to each other than they are thick leave nothing between them.
            if ([] !== $ring && $area > 0.0) {
                $regions[] = new Region(null, $ring, $holes[$i], $area);
            }
        }

        return $regions;
    }

    /** @return list<Outline> */
    private static function outlines(Faces $faces): array
    {
        $holes = [];
        foreach ($faces->bounded as $face) {
            if ([] !== $face['faces'] && Polygon::area($face['faces']) > 0.0) {
                $holes[$face['component']][] = array_reverse($face['faces']);
            }
        }
        $outlines = [];
        foreach ($faces->outer as $face) {
            if ([] !== $face['faces']) {
                $outlines[] = new Outline(array_reverse($face['faces']), $holes[$face['component']] ?? []);
            }
        }

        return $outlines;
    }

    /**
     * @param list<Wall> $walls
     * @param list<Region> $regions
     *
     * @return array{list<Region>, list<Leak>, list<Finding>}
     */
    private static function nameRooms(Storey $storey, array $walls, array $regions): array
    {
        $leaks = [];
        $findings = [];
        $search = null;
        foreach ($storey->rooms as $room) {
            $index = self::regionAt(array_values($regions), $room->anchor->x, $room->anchor->y);
            if (null === $index) {
                $search ??= new LeakSearch($walls);
                $leak = $search->from($room);
                if (null !== $leak) {
                    $leaks[] = $leak;
                    $findings[] = new Finding('leak', [$room->id], $leak->neck[0], \sprintf('%s does not close: %.0f mm are open here.', $room->name, $leak->gapMm));
                } else {
                    $findings[] = new Finding('room-open', [$room->id], $room->anchor->toArray(), \sprintf('%s has no walls round it yet.', $room->name));
                }
                continue;
            }
            if (null !== ($other = $regions[$index]->room)) {
                $findings[] = new Finding('two-names', [$other->id, $room->id], $room->anchor->toArray(), \sprintf('%s and %s name the same room.', $other->name, $room->name));
                continue;
            }
            $regions[$index] = new Region($room, $regions[$index]->polygon, $regions[$index]->holes, $regions[$index]->netAreaMm2);
        }

        return [array_values($regions), $leaks, $findings];
    }

    /** @param list<Region> $regions */
    private static function regionAt(array $regions, float $x, float $y): ?int
    {
        foreach ($regions as $i => $region) {
            if (!Polygon::contains($region->polygon, $x, $y)) {
                continue;
            }
            foreach ($region->holes as $hole) {
                if (Polygon::contains($hole, $x, $y)) {
                    continue 2;
                }
            }

            return $i;
        }

        return null;
    }

    /** @return array{array<string, list<array{float, float}>>, list<Finding>} */
    private static function openings(Storey $storey, Network $network): array
    {
        $walls = [];
        foreach ($storey->walls as $wall) {
            $walls[$wall->id] = $wall;
        }
        $junctions = [];
        foreach ($network->edges as $edge) {
            $junctions[$edge['wall']][] = $network->nodes[$edge['from']];
            $junctions[$edge['wall']][] = $network->nodes[$edge['to']];
        }
        $pieces = [];
        $findings = [];
        $onWall = [];
        foreach ($storey->openings as $opening) {
            $wall = $walls[$opening->wall] ?? null;
            if (null === $wall || $wall->length() <= Wall::JOIN_MM) {
                continue;
            }
            $start = $opening->offset;
            $end = $opening->offset + $opening->width;
            $pieces[$opening->id] = $wall->piece($start, $end);
            $middle = [($pieces[$opening->id][0][0] + $pieces[$opening->id][2][0]) / 2.0, ($pieces[$opening->id][0][1] + $pieces[$opening->id][2][1]) / 2.0];
            if ($start < -Wall::JOIN_MM || $end > $wall->length() + Wall::JOIN_MM) {
                $findings[] = new Finding('opening-off-wall', [$opening->id, $wall->id], $middle, 'This opening reaches beyond the end of its wall.');
            }
            foreach ($onWall[$wall->id] ?? [] as [$other, $s, $e]) {
                if ($start < $e && $s < $end) {
                    $findings[] = new Finding('openings-overlap', [$other, $opening->id], $middle, 'Two openings overlap here.');
                }
            }
            $onWall[$wall->id][] = [$opening->id, $start, $end];
            foreach ($junctions[$wall->id] ?? [] as [$x, $y]) {
                $along = (($x - $wall->from->x) * ($wall->to->x - $wall->from->x) + ($y - $wall->from->y) * ($wall->to->y - $wall->from->y)) / $wall->length();
                if ($along > $start + Wall::JOIN_MM && $along < $end - Wall::JOIN_MM) {
                    $findings[] = new Finding('opening-on-junction', [$opening->id, $wall->id], [$x, $y], 'Another wall meets this opening.');
                    break;
                }
            }
        }

        return [$pieces, $findings];
    }

    /**
     * @param list<Outline> $outlines
     * @param list<Region> $regions
     *
     * @return array{grossFloor: float, netFloor: float, structure: float}
     */
    private static function areas(array $outlines, array $regions, Faces $faces): array
    {
        $structure = 0.0;
        foreach ($outlines as $outline) {
            $structure += Polygon::area($outline->outer);
            foreach ($outline->holes as $hole) {
                $structure += Polygon::area($hole);
            }
        }
        $net = array_sum(array_map(static fn (Region $r): float => $r->netAreaMm2, $regions));

        return ['grossFloor' => $structure + $net, 'netFloor' => $net, 'structure' => $structure];
    }
}
