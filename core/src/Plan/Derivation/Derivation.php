<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation;

use Plinth\Core\Geometry\Clip;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Internal\Bodies;
use Plinth\Core\Plan\Derivation\Internal\Clear;
use Plinth\Core\Plan\Editing\Mend;
use Plinth\Core\Plan\Editing\MendAct;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Network\Effort;
use Plinth\Core\Plan\Network\Enclosures;
use Plinth\Core\Plan\Network\Face;
use Plinth\Core\Plan\Network\Faces;
use Plinth\Core\Plan\Network\Leak;
use Plinth\Core\Plan\Network\LeakSearch;
use Plinth\Core\Plan\Network\Neighbourhood;
use Plinth\Core\Plan\Network\Network;
use Plinth\Core\Plan\Network\Piece;
use Plinth\Core\Plan\Network\Pieces;
use Plinth\Core\Plan\Network\WholeStorey;

/**
 * Derives bodies, rooms, leaks and findings from a storey: the whole of it, or what an edit touches.
 *
 * Input may hold: walls straight or curved, at any angle and of any thickness, ends that meet, stop inside another wall's
 * body or miss it, crossings, walls on top of each other, groups inside rooms of others, openings that do not fit,
 * anchors anywhere. Output always: outlines and regions as closed rings (outer counter-clockwise, holes clockwise, first
 * point not repeated), one region per enclosed space that is wider than its walls, every flaw as a finding with its place.
 *
 * After an edit: `affected` tells whose shapes may differ, `shapes` what walls look like now, `regionsOf` every region that
 * those walls bound, `place` where a room is. Regions that were bounded by a line that is affected or was removed and are
 * not among the answers are gone; one that was bounded by no affected line beside those that were touched themselves has
 * lost what stood in it, and is found again by any of its lines. Nothing else of the plan is looked at.
 *
 * Source of the areas' names: ISO 9836. Own derivation otherwise; the tests hold areas against GEOS.
 *
 * @phpstan-import-type Box from Neighbourhood
 * @phpstan-import-type Shape from Overlay
 */
final class Derivation
{
    /** An end that runs towards a wall at the least slope is drawn on by so many half thicknesses of it. */
    private const DRAWN_ON = 6.0;
    /** Less than a square centimetre between walls that nearly lie on each other is no region. */
    private const LEAST_REGION_MM2 = 100.0;

    private readonly Pieces $pieces;
    private readonly Faces $faces;
    private readonly Enclosures $enclosures;
    private readonly Bodies $bodies;
    private readonly Pieces $loose;
    private readonly Faces $looseFaces;
    private readonly Bodies $looseBodies;
    private ?LeakSearch $leaks = null;

    public function __construct(private readonly Neighbourhood $plan, Effort $effort = new Effort())
    {
        $this->pieces = new Pieces($plan);
        $this->faces = new Faces(new Network($this->pieces, $effort));
        $this->enclosures = new Enclosures($this->pieces, $this->faces);
        $this->bodies = new Bodies($this->pieces, $this->faces, $effort);
        $this->loose = new Pieces($plan, false);
        $this->looseFaces = new Faces(new Network($this->loose, $effort));
        $this->looseBodies = new Bodies($this->loose, $this->looseFaces, $effort);
    }

    public static function of(Storey $storey): DerivedStorey
    {
        return (new self(new WholeStorey($storey)))->whole($storey);
    }

    /**
     * @param list<Box> $touched round what was changed, as it was and as it is
     *
     * @return list<string> ids of walls and dividers whose shapes, or whose regions, may differ
     */
    public function affected(array $touched): array
    {
        $affected = [];
        foreach ([[$this->pieces, $this->faces->network], [$this->loose, $this->looseFaces->network]] as [$pieces, $network]) {
            foreach ($touched as [$x1, $y1, $x2, $y2]) {
                $near = $pieces->near($x1, $y1, $x2, $y2);
                // So far at most is an end drawn on to a wall's line: there other walls may meet it.
                $r = self::DRAWN_ON * max([0.0, ...array_map(static fn (Piece $p): float => $p->half, $near)]);
                foreach ($near as $piece) {
                    if (!self::touch($piece, $x1, $y1, $x2, $y2)) {
                        continue;
                    }
                    $affected[$piece->wall] = true;
                    foreach ($network->along($piece) as $e) {
                        foreach ([$network->edges[$e]['from'], $network->edges[$e]['to']] as $node) {
                            [$x, $y] = $network->nodes[$node];
                            if ($x >= $x1 - $r && $x <= $x2 + $r && $y >= $y1 - $r && $y <= $y2 + $r) {
                                foreach ($network->around($node) as $h) {
                                    $affected[$network->edges[$h >> 1]['wall']] = true;
                                }
                            }
                        }
                    }
                }
            }
        }
        foreach ([
            [$this->pieces, $this->faces->network, $this->bodies],
            [$this->loose, $this->looseFaces->network, $this->looseBodies],
        ] as [$pieces, $network, $bodies]) {
            foreach (array_map(strval(...), array_keys($affected)) as $id) {
                foreach ($pieces->ofWall($id) as $piece) {
                    foreach ($network->along($piece) as $e) {
                        // What a body adds to those that it lies on hangs on how they are told themselves.
                        $isPlain = $bodies->isPlain($e);
                        foreach ([...$bodies->neighbours($e), ...array_keys($bodies->overlaps($e))] as $other) {
                            if (!$isPlain || !$bodies->isPlain($other)) {
                                $affected[$network->edges[$other]['wall']] = true;
                            }
                        }
                    }
                }
            }
        }
        ksort($affected, \SORT_STRING);

        return array_map(strval(...), array_keys($affected));
    }

    /**
     * Takes in what lies in some boxes without saying that anything there differs.
     *
     * @param list<Box> $boxes
     */
    public function look(array $boxes): void
    {
        foreach ($boxes as $box) {
            $this->pieces->near(...$box);
            $this->loose->near(...$box);
        }
    }

    /** @return int how many nodes have been looked at so far */
    public function visited(): int
    {
        return \count($this->faces->network->nodes) + \count($this->looseFaces->network->nodes);
    }

    /**
     * @param list<string> $ids
     *
     * @return array<string, WallShape> what walls look like, by id; nothing for dividers and what is not there
     */
    public function shapes(array $ids): array
    {
        $openings = [];
        foreach ($this->plan->openings($ids) as $opening) {
            $openings[$opening->wall][] = $opening;
        }
        $shapes = [];
        foreach ($ids as $id) {
            if (null !== ($shape = $this->shape($id, $openings[$id] ?? []))) {
                $shapes[$id] = $shape;
            }
        }

        return $shapes;
    }

    /** @param list<Opening> $ofWall */
    private function shape(string $id, array $ofWall): ?WallShape
    {
        $loose = [] !== $this->loose->ofWall($id);
        $faces = $loose ? $this->looseFaces : $this->faces;
        $bodies = $loose ? $this->looseBodies : $this->bodies;
        $pieces = $loose ? $this->loose->ofWall($id) : $this->pieces->ofWall($id);
        $wall = $loose ? $this->loose->wall($id) : $this->pieces->wall($id);
        if (!$wall instanceof Wall) {
            return null;
        }
        $findings = [];
        if ([] === $pieces) {
            $findings[] = new Finding(
                'wall-of-no-length',
                [$id],
                $wall->from->toArray(),
                'This wall has no length: remove it, or move one of its ends.',
            );
        }
        $stretches = [];
        $area = 0.0;
        $junctions = [];
        foreach ($pieces as $piece) {
            foreach ($faces->network->along($piece) as $e) {
                $edge = $faces->network->edges[$e];
                // Where walls lie on each other the thicker one shows.
                if ($edge['wall'] !== $id) {
                    continue;
                }
                $junctions[] = $edge['at'];
                [$right, $left] = $faces->sides(2 * $e);
                [$from, $to] = [$faces->network->nodes[$edge['from']], $faces->network->nodes[$edge['to']]];
                $stretches[] = ['from' => $from, 'right' => $right, 'to' => $to, 'left' => $left];
                if ($bodies->isPlain($e)) {
                    $area += Polygon::area([$from, ...$right, $to, ...$left]);
                    $area += $this->bulge($faces, 2 * $e, $right) + $this->bulge($faces, 2 * $e + 1, $left);
                    continue;
                }
                $area += $bodies->area($e);
                $findings += $this->clashes(
                    $bodies,
                    $faces->network,
                    $e,
                    1 === \count($pieces) && 1 === \count($faces->network->along($piece)),
                );
            }
        }
        foreach ($faces->network->overlaps as [$first, $second, $at]) {
            if ($first === $id) {
                $findings['overlap '.$second] = $this->overlap($loose ? $this->loose : $this->pieces, $first, $second, $at);
            }
        }
        [$openings, $openingFindings] = [] === $pieces ? [[], []] : $this->openings($wall, $junctions, $ofWall);

        return new WallShape($id, $stretches, $area, $openings, [...array_values($findings), ...$openingFindings]);
    }

    /**
     * Where the body of an edge runs into others: told once, by the wall whose id comes first.
     *
     * @param bool $isWhole whether the edge is all of its wall
     *
     * @return array<string, Finding>
     */
    private function clashes(Bodies $bodies, Network $network, int $edge, bool $isWhole): array
    {
        $id = $network->edges[$edge]['wall'];
        $findings = [];
        if ($isWhole && null !== ($at = $bodies->tooShortAt($edge))) {
            $findings['short'] = new Finding(
                'wall-too-short',
                [$id],
                $at,
                'This wall is shorter than its neighbours are thick: make it longer, or let them meet without it.',
            );
        }
        $alongside = $bodies->alongside($edge);
        foreach ($alongside + $bodies->overlaps($edge) as $other => $at) {
            $second = $network->edges[$other]['wall'];
            $isSeen = isset($alongside[$other]) || (!$bodies->isSlight($edge, $other) && !$bodies->areJoinedByOneTooShort($edge, $other));
            if (strcmp($second, $id) > 0 && $isSeen) {
                $findings["overlap $second"] = $this->overlap(
                    $bodies === $this->looseBodies ? $this->loose : $this->pieces,
                    $id,
                    $second,
                    $at,
                );
            }
        }

        return $findings;
    }

    /** @param array{float, float} $at */
    private function overlap(Pieces $pieces, string $first, string $second, array $at): Finding
    {
        [$a, $b] = [$pieces->wall($first), $pieces->wall($second)];
        $mend = $a instanceof Wall && $b instanceof Wall ? Mend::of($a, $b)->act : null;

        return new Finding('walls-overlap', [$first, $second], $at, match ($mend) {
            MendAct::Merge => 'Two walls lie on each other here, as if one had been traced twice: make them one.',
            MendAct::Beside => 'Two walls run into each other side by side here: move one aside.',
            MendAct::Trim => 'One wall runs into another here beside where they join: end it at the other’s line.',
            default => 'Two walls lie on each other here: remove one of them.',
        }, $mend);
    }

    /**
     * Every region that some walls bound, those round walls that stand free, and those that hold some points: by their keys. And for
     * regions that were found by a point that they hold, it and the lines round it: what was there before and is not among them, is
     * gone.
     *
     * @param list<string> $lines ids of walls and dividers
     * @param list<Point> $points anchors of rooms and corners of columns that have come, gone or changed
     *
     * @return array{regions: array<string, Region>, holding: list<array{Point, list<string>}>}
     */
    public function regionsOf(array $lines, array $points = []): array
    {
        ['bounded' => $bounded, 'outer' => $outer] = $this->facesOf($lines);
        $found = [];
        foreach ($outer as $face) {
            // What a group that stands free stands in.
            $found[] = [new Point(...$face->centre[0]), $this->enclosures->round($face)];
        }
        foreach ($points as $point) {
            $found[] = [$point, $this->enclosures->at($point->x, $point->y)];
        }
        $holding = [];
        foreach ($found as [$point, $face]) {
            if (null !== $face) {
                $bounded[spl_object_id($face)] = $face;
                $holding[] = [
                    $point,
                    array_values(
                        array_unique(array_map(fn (int $h): string => $this->faces->network->edges[$h >> 1]['wall'], $face->halves)),
                    ),
                ];
            }
        }
        $regions = [];
        foreach ($bounded as $face) {
            foreach ($this->regions($face, $this->enclosures->inside($face)) as $region) {
                $regions[$region->key] = $region;
            }
        }

        return ['regions' => $regions, 'holding' => $holding];
    }

    /** The region that holds a room's anchor, or why none does. */
    public function place(Room $room): Region|Unplaced
    {
        $face = $this->enclosures->at($room->anchor->x, $room->anchor->y);
        foreach (null === $face ? [] : $this->regions($face, $this->enclosures->inside($face)) as $region) {
            if ($region->names($room)) {
                return $region;
            }
        }
        $leak = null === $face ? ($this->leaks ??= new LeakSearch($this->pieces, $this->faces->network))->from($room) : null;

        return new Unplaced($room, $leak, null !== $leak
            ? new Finding(
                'leak',
                [$room->id],
                $leak->neck[0],
                \sprintf('%s does not close: %.0f mm are open here.', $room->name, $leak->gapMm),
            )
            : new Finding('room-open', [$room->id], $room->anchor->toArray(), \sprintf('%s has no walls round it yet.', $room->name)));
    }

    /**
     * @return array{array<string, WallShape>, list<Region>, list<Unplaced>} walls by id
     */
    public function everything(): array
    {
        $ids = $this->all();
        ['bounded' => $bounded, 'outer' => $outer] = $this->facesOf($ids);
        $islands = [];
        foreach ($outer as $face) {
            if (null !== ($round = $this->enclosures->round($face))) {
                $islands[spl_object_id($round)][] = $face;
            }
        }
        $regions = [];
        $placed = [];
        foreach ($bounded as $i => $face) {
            foreach ($this->regions($face, $islands[$i] ?? []) as $region) {
                $regions[] = $region;
                $placed[$region->room->id ?? ''] = true;
                foreach ($region->findings as $finding) {
                    $placed[$finding->things[1] ?? ''] = true;
                }
            }
        }
        $walls = $this->shapes($ids);
        $unplaced = [];
        foreach ($this->plan->rooms([-\INF, -\INF, \INF, \INF]) as $room) {
            $place = isset($placed[$room->id]) ? null : $this->place($room);
            if ($place instanceof Unplaced) {
                $unplaced[] = $place;
            }
        }

        return [$walls, $regions, $unplaced];
    }

    /** @return list<string> ids of all walls and dividers */
    private function all(): array
    {
        $bounds = $this->plan->bounds() ?? [0.0, 0.0, 0.0, 0.0];
        $this->pieces->near(...$bounds);
        $this->loose->near(...$bounds);
        $ids = [...$this->pieces->known(), ...$this->loose->known()];
        sort($ids, \SORT_STRING);

        return $ids;
    }

    private function whole(Storey $storey): DerivedStorey
    {
        [$walls, $regions, $unplaced] = $this->everything();
        $outlines = $this->outlines(...$this->facesOf($this->all()));
        // Any text is an id, a number too.
        $openings = array_replace([], ...array_map(static fn (WallShape $w): array => $w->openings, array_values($walls)));
        $findings = array_merge(
            ...array_map(static fn (WallShape $w): array => $w->findings, array_values($walls)),
            ...array_map(static fn (Region $r): array => $r->findings, $regions),
            ...array_map(static fn (Unplaced $u): array => [$u->finding], $unplaced),
        );
        $leaks = [
            ...array_values(array_filter(array_map(static fn (Unplaced $u): ?Leak => $u->leak, $unplaced))),
            ...array_merge(...array_map(static fn (Region $r): array => $r->leaks, $regions)),
        ];
        $net = array_sum(array_map(static fn (Region $r): float => $r->netAreaMm2, $regions));
        $structure = array_sum(array_map(static fn (WallShape $w): float => $w->areaMm2, $walls)) + array_sum(
            array_map(static fn (Region $r): float => $r->columnsMm2, $regions),
        );

        return new DerivedStorey(
            $storey->id,
            $outlines,
            $regions,
            $walls,
            $openings,
            $leaks,
            $findings,
            ['grossFloor' => $structure + $net, 'netFloor' => $net, 'structure' => $structure],
        );
    }

    /**
     * @param list<string> $lines
     *
     * @return array{bounded: array<int, Face>, outer: array<int, Face>} faces on either side of the lines
     */
    private function facesOf(array $lines): array
    {
        $faces = ['bounded' => [], 'outer' => []];
        foreach ($lines as $id) {
            foreach ($this->pieces->ofWall($id) as $piece) {
                foreach ($this->faces->network->along($piece) as $e) {
                    foreach ([2 * $e, 2 * $e + 1] as $half) {
                        $face = $this->faces->of($half);
                        $faces[$face->isBounded() ? 'bounded' : 'outer'][spl_object_id($face)] = $face;
                    }
                }
            }
        }

        return $faces;
    }

    /**
     * What the bodies leave of a face: one region where they keep to their joints; none or several where they do not.
     *
     * @param list<Face> $islands outer faces of what stands free inside
     *
     * @return list<Region>
     */
    private function regions(Face $face, array $islands): array
    {
        $walls = [];
        $isPlain = true;
        foreach ([$face, ...$islands] as $ring) {
            foreach ($ring->halves as $h) {
                $walls[$this->faces->network->edges[$h >> 1]['wall']] = true;
                $isPlain = $isPlain && $this->bodies->isPlain($h >> 1);
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
            $this->bodies->clear($face, $islands),
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
                $leak = ($this->leaks ??= new LeakSearch($this->pieces, $this->faces->network))->from($room, $name->anchor);
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
                        \sprintf('%s runs into %s: %.0f mm are open between them.', $room->name, $name->name, $leak->gapMm),
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
            ['x' => $x, 'y' => $y] = ['x' => $room->anchor->x, 'y' => $room->anchor->y];
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

    /**
     * @param array<int, Face> $bounded
     * @param array<int, Face> $outer
     *
     * @return list<BodyOutline> the body of each connected group of walls that bound rooms
     */
    private function outlines(array $bounded, array $outer): array
    {
        // Faces that share a node belong to one group.
        $atNode = [];
        foreach ($bounded + $outer as $i => $face) {
            foreach ($face->halves as $h) {
                $atNode[$this->faces->network->halves[$h][0]][$i] = true;
            }
        }
        $group = [];
        foreach ($outer as $start => $_) {
            $stack = [$start];
            while (null !== ($i = array_pop($stack))) {
                if (isset($group[$i])) {
                    continue;
                }
                $group[$i] = $start;
                foreach (($bounded[$i] ?? $outer[$i])->halves as $h) {
                    foreach ($atNode[$this->faces->network->halves[$h][0]] as $other => $_) {
                        if (!isset($group[$other])) {
                            $stack[] = $other;
                        }
                    }
                }
            }
        }
        $edges = [];
        $holes = [];
        foreach ($bounded + $outer as $i => $face) {
            foreach ($face->halves as $h) {
                $edges[$group[$i]][$h >> 1] = true;
            }
            if (isset($bounded[$i]) && [] !== $face->faces && $face->area > 0.0) {
                $holes[$group[$i]][] = array_reverse($face->faces);
            }
        }
        $outlines = [];
        $tangled = [];
        foreach ($outer as $i => $face) {
            if ($group[$i] !== $i) {
                // Where walls lie on each other a group may have its outside in two parts: it is told once.
                continue;
            }
            $isPlain = [] === array_filter(array_keys($edges[$i]), fn (int $e): bool => !$this->bodies->isPlain($e));
            if (!$isPlain) {
                $tangled = [...$tangled, ...array_keys($edges[$i])];
            } elseif ([] !== $face->faces && $face->area < -1e-6) {
                // Dividers alone have no body.
                $outlines[] = new BodyOutline(array_reverse($face->faces), $holes[$i] ?? []);
            }
        }
        foreach ($this->bodies->union($tangled) as ['outer' => $ring, 'holes' => $inside]) {
            $outlines[] = new BodyOutline($ring, $inside);
        }

        return $outlines;
    }

    /**
     * @param list<float> $junctions distances along the wall where others meet it
     * @param list<Opening> $openings of the wall
     *
     * @return array{array<string, non-empty-list<array{float, float}>>, list<Finding>}
     */
    private function openings(Wall $wall, array $junctions, array $openings): array
    {
        $pieces = [];
        $findings = [];
        $before = [];
        usort($openings, static fn (Opening $a, Opening $b): int => strcmp($a->id, $b->id));
        $length = $wall->length();
        // The chords' own joints are none.
        $chords = $wall->chords($length);
        $junctions = array_filter(
            $junctions,
            static fn (float $at): bool => 1 === $chords || abs($at * $chords / $length - round($at * $chords / $length)) > 1e-6,
        );
        foreach ($openings as $opening) {
            $start = $opening->offset;
            $end = $opening->offset + $opening->width;
            $pieces[$opening->id] = $wall->piece($start, $end);
            $middle = $wall->at(($start + $end) / 2.0)->toArray();
            if ($start < -Wall::JOIN_MM || $end > $length + Wall::JOIN_MM) {
                $findings[] = new Finding(
                    'opening-off-wall',
                    [$opening->id, $wall->id],
                    $middle,
                    'This opening reaches beyond the end of its wall.',
                );
            }
            foreach ($before as [$other, $s, $e]) {
                if ($start < $e && $s < $end) {
                    $findings[] = new Finding('openings-overlap', [$other, $opening->id], $middle, 'Two openings overlap here.');
                }
            }
            $before[] = [$opening->id, $start, $end];
            foreach ($junctions as $at) {
                if ($at > $start + Wall::JOIN_MM && $at < $end - Wall::JOIN_MM) {
                    $findings[] = new Finding(
                        'opening-on-junction',
                        [$opening->id, $wall->id],
                        $wall->at($at)->toArray(),
                        'Another wall meets this opening.',
                    );
                    break;
                }
            }
        }

        return [$pieces, $findings];
    }

    /**
     * What the right face of a half-edge has between its arc and its chord, mm².
     *
     * @param list<array{float, float}> $right
     */
    private function bulge(Faces $faces, int $half, array $right): float
    {
        $radius = $faces->leftRadius($half ^ 1);

        if (0.0 === $radius) {
            return 0.0;
        }
        [, , $dx, $dy] = $faces->network->halves[$half];
        $ahead = ($right[1][0] - $right[0][0]) * $dx + ($right[1][1] - $right[0][1]) * $dy;

        // A corner that reaches beyond this chord takes back what is told again by the next one.
        return ($ahead < 0.0 ? 1.0 : -1.0) * Face::segment($radius, hypot($right[1][0] - $right[0][0], $right[1][1] - $right[0][1]));
    }

    private static function touch(Piece $piece, float $x1, float $y1, float $x2, float $y2): bool
    {
        $r = $piece->half + Wall::JOIN_MM;

        return max($piece->a[0], $piece->b[0]) + $r >= $x1
            && min($piece->a[0], $piece->b[0]) - $r <= $x2
            && max($piece->a[1], $piece->b[1]) + $r >= $y1
            && min($piece->a[1], $piece->b[1]) - $r <= $y2;
    }
}
