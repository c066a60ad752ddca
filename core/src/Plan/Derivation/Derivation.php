<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation;

use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Internal\Layer;
use Plinth\Core\Plan\Derivation\Internal\Outlines;
use Plinth\Core\Plan\Derivation\Internal\Regions;
use Plinth\Core\Plan\Derivation\Internal\WallShapes;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Network\Effort;
use Plinth\Core\Plan\Network\Enclosures;
use Plinth\Core\Plan\Network\Face;
use Plinth\Core\Plan\Network\Leak;
use Plinth\Core\Plan\Network\Neighbourhood;
use Plinth\Core\Plan\Network\Piece;
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

    private readonly Layer $enclosing;
    private readonly Layer $loose;
    private readonly Enclosures $enclosures;
    private readonly Regions $regions;

    /** @var array<string, list<Shape>> what walls cover, once it has been asked for */
    private array $footprints = [];

    public function __construct(private readonly Neighbourhood $plan, Effort $effort = new Effort())
    {
        $this->enclosing = new Layer($plan, true, $effort);
        $this->loose = new Layer($plan, false, $effort);
        $this->enclosures = new Enclosures($this->enclosing->pieces, $this->enclosing->faces);
        $this->regions = new Regions($plan, $this->enclosing, $this->enclosures);
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
        foreach ([$this->enclosing, $this->loose] as $layer) {
            [$pieces, $network] = [$layer->pieces, $layer->network];
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
        foreach ([$this->enclosing, $this->loose] as $layer) {
            [$pieces, $network, $bodies] = [$layer->pieces, $layer->network, $layer->bodies];
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
            $this->enclosing->pieces->near(...$box);
            $this->loose->pieces->near(...$box);
        }
    }

    /** @return int how many nodes have been looked at so far */
    public function visited(): int
    {
        return \count($this->enclosing->network->nodes) + \count($this->loose->network->nodes);
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
        [$enclosing, $loose] = [new WallShapes($this->enclosing), new WallShapes($this->loose)];
        foreach ($ids as $id) {
            // A wall has its pieces in one of both.
            $layer = [] !== $this->loose->pieces->ofWall($id) ? $loose : $enclosing;
            if (null !== ($shape = $layer->of($id, $openings[$id] ?? []))) {
                $shapes[$id] = $shape;
            }
        }

        return $shapes;
    }

    /**
     * @param list<string> $ids
     *
     * @return array<string, list<Shape>> what each wall covers of the plan that no other does, by id
     */
    public function footprints(array $ids): array
    {
        [$enclosing, $loose] = [new WallShapes($this->enclosing), new WallShapes($this->loose)];
        $footprints = [];
        foreach ($ids as $id) {
            $isLoose = [] !== $this->loose->pieces->ofWall($id);
            if (($isLoose ? $this->loose : $this->enclosing)->pieces->wall($id) instanceof Wall) {
                $footprints[$id] = $this->footprints[$id] ??= ($isLoose ? $loose : $enclosing)->footprint($id);
            }
        }

        return $footprints;
    }

    /** A wall by its id; null for a divider and what is not there. */
    public function wall(string $id): ?Wall
    {
        $line = $this->enclosing->pieces->wall($id) ?? $this->loose->pieces->wall($id);

        return $line instanceof Wall ? $line : null;
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
                        array_unique(array_map(fn (int $h): string => $this->enclosing->network->edges[$h >> 1]['wall'], $face->halves)),
                    ),
                ];
            }
        }
        $regions = [];
        foreach ($bounded as $face) {
            foreach ($this->regions->of($face, $this->enclosures->inside($face)) as $region) {
                $regions[$region->key] = $region;
            }
        }

        return ['regions' => $regions, 'holding' => $holding];
    }

    /** The region that holds a room's anchor, or why none does. */
    public function place(Room $room): Region|Unplaced
    {
        return $this->regions->place($room);
    }

    /**
     * @return array{array<string, WallShape>, list<Region>, list<Unplaced>} walls by id
     */
    public function everything(): array
    {
        $ids = $this->all();
        // All that meets at a node is known before anything is walked round.
        foreach ($ids as $id) {
            array_map($this->enclosing->network->along(...), $this->enclosing->pieces->ofWall($id));
        }
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
            foreach ($this->regions->of($face, $islands[$i] ?? []) as $region) {
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
    public function all(): array
    {
        $bounds = $this->plan->bounds() ?? [0.0, 0.0, 0.0, 0.0];
        $this->enclosing->pieces->near(...$bounds);
        $this->loose->pieces->near(...$bounds);
        $ids = [...$this->enclosing->pieces->known(), ...$this->loose->pieces->known()];
        sort($ids, \SORT_STRING);

        return $ids;
    }

    /** @return list<BodyOutline> of each group of walls that belong together */
    public function outlines(): array
    {
        return Outlines::of($this->enclosing, ...$this->facesOf($this->all()));
    }

    private function whole(Storey $storey): DerivedStorey
    {
        [$walls, $regions, $unplaced] = $this->everything();
        $outlines = $this->outlines();
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
            foreach ($this->enclosing->pieces->ofWall($id) as $piece) {
                foreach ($this->enclosing->network->along($piece) as $e) {
                    foreach ([2 * $e, 2 * $e + 1] as $half) {
                        $face = $this->enclosing->faces->of($half);
                        $faces[$face->isBounded() ? 'bounded' : 'outer'][spl_object_id($face)] = $face;
                    }
                }
            }
        }

        return $faces;
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
