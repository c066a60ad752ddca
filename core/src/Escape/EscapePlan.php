<?php

declare(strict_types=1);

namespace Plinth\Core\Escape;

use Plinth\Core\Escape\Internal\StairWay;
use Plinth\Core\Escape\Internal\StoreyFloor;
use Plinth\Core\Escape\Internal\WalkedStorey;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\DoorExit;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Storey;

/**
 * How one gets out of a building on foot: from the worst place of every room to the next exit of its storey, and to the open air.
 *
 * Ways go round walls and what stands about, through doorways, and up or down stairs along the middle of their flights; who walks has no
 * width. A stair counts along its pitch, a landing as it is (common practice, no source).
 */
final class EscapePlan
{
    /** so many corners for each exit, all together: second ways of larger buildings are not looked for */
    private const MOST_LOOKED_AT = 30_000;

    private readonly WalkedFloor $floor;
    private ?ShortestWays $toFinal = null;
    /** @var list<WalkedStorey> from below */
    private array $storeys = [];
    /** @var array<int, int> number of the storey by corner */
    private array $on = [];
    /** @var array<int, array{Doorway, int}> exits by corner, and which way they are passed from there */
    private array $exits = [];
    /** @var array<int, list<array{int, float}>> stairs by corner: to which other one, mm */
    private array $links = [];
    /** @var array<string, string> stairs by both corners */
    private array $stairs = [];

    /** @param array<string, DerivedStorey> $known by storey; others are derived */
    public function __construct(private readonly Plan $plan, array $known = [])
    {
        $this->floor = new WalkedFloor();
        $storeys = $plan->storeys;
        usort($storeys, static fn (Storey $a, Storey $b): int => $a->elevation <=> $b->elevation);
        $ways = StairWay::all($storeys);
        $ends = [];
        foreach ($storeys as $n => $storey) {
            $ends[] = $this->walked($n, $storey, $known[$storey->id] ?? Derivation::of($storey), $ways);
        }
        foreach ($ways as $k => $way) {
            [$a, $b] = [$ends[$way->from][$k] ?? null, $ends[$way->to][$k] ?? null];
            if (null !== $a && null !== $b) {
                $this->links[$a][] = [$b, $way->length()];
                $this->links[$b][] = [$a, $way->length()];
                $this->stairs["$a $b"] = $this->stairs["$b $a"] = $way->id;
            }
        }
    }

    /** Whether any door leads out, so that there is anything to tell. */
    public static function hasExits(Plan $plan): bool
    {
        foreach ($plan->storeys as $storey) {
            foreach ($storey->openings as $opening) {
                if (DoorExit::None !== $opening->exit) {
                    return true;
                }
            }
        }

        return false;
    }

    /**
     * @param list<string>|null $only keys of regions; of every one without
     *
     * @return list<RoomEscape> by storey from below
     */
    public function rooms(?array $only = null): array
    {
        $left = null === $only ? null : $this->toward($only);
        $toFinal = null === $only ? $this->toFinal() : $this->ways(static fn (DoorExit $exit): bool => DoorExit::Final === $exit, $left);
        $isFinal = [] === array_filter($this->exits, static fn (array $exit): bool => DoorExit::Final !== $exit[0]->opening->exit);
        $toExit = $isFinal ? $toFinal : $this->ways(static fn (DoorExit $exit): bool => DoorExit::None !== $exit, $left);
        $of = [];
        foreach ($this->floor->cells as $t => $cell) {
            $of[$cell][] = $t;
        }
        [$told, $places] = [[], []];
        foreach ($this->storeys as $storey) {
            foreach ($storey->derived->regions as $k => $region) {
                if (null !== $only && !\in_array($region->key, $only, true)) {
                    continue;
                }
                $triangles = array_merge(...array_map(static fn (int $cell): array => $of[$cell] ?? [], $storey->cellsOf($k)));
                $place = [] === $triangles ? null : $toExit->furthest($triangles);
                $final = $isFinal || [] === $triangles ? $place : $toFinal->furthest($triangles);
                if (null !== $place) {
                    $places[\count($told)] = $place;
                }
                $told[] = [$storey->storey->id, $region, $place, $final];
            }
        }
        $seconds = $this->seconds($toExit, $places);

        $rooms = [];
        foreach ($told as $k => [$storey, $region, $place, $final]) {
            $route = null === $place ? null : $this->route($toExit, $place);
            $rooms[] = new RoomEscape(
                $storey,
                $region,
                $route,
                $isFinal ? $route : (null === $final ? null : $this->route($toFinal, $final)),
                $seconds[$k] ?? null,
                $this->isOpenAbove($storey, $region),
            );
        }

        return $rooms;
    }

    /** Whether the next floor above is open over a room. */
    private function isOpenAbove(string $storey, Region $region): bool
    {
        $isNext = false;
        foreach ($this->storeys as $walked) {
            foreach ($isNext ? $walked->storey->voids : [] as $void) {
                if ($region->holds(...Polygon::labelPoint($void->outline->points()))) {
                    return true;
                }
            }
            if ($isNext) {
                return false;
            }
            $isNext = $walked->storey->id === $storey;
        }

        return false;
    }

    /** What the project asks of its ways, to be held against those of this plan. */
    public function limits(): EscapeLimits
    {
        return new EscapeLimits($this->plan->fire->limits, $this->looksForSeconds());
    }

    /** Whether other ways are looked for: not where there are too many exits in too large a building. */
    public function looksForSeconds(): bool
    {
        $exits = array_unique(array_map(static fn (array $exit): string => $exit[0]->opening->id, $this->exits));

        return \count($exits) * \count($this->floor->at) <= self::MOST_LOOKED_AT;
    }

    /** @return list<StairEscape> of every stair that is walked, from where it arrives above down it and into the open air */
    public function stairs(): array
    {
        $ways = $this->toFinal();
        $told = [];
        foreach ($this->stairs as $key => $stair) {
            [$below, $above] = array_map(intval(...), explode(' ', $key));
            $mm = $ways->ofCorner($below);
            if ($this->on[$below] < $this->on[$above]) {
                $told[] = new StairEscape(
                    $stair,
                    $this->storeys[$this->on[$below]]->storey->id,
                    null === $mm ? null : $this->downStair($ways, $below, $above),
                );
            }
        }

        return $told;
    }

    private function downStair(ShortestWays $ways, int $below, int $above): ?EscapeRoute
    {
        $route = null;
        foreach ($this->floor->about[$below] ?? [] as $triangle) {
            // What is seen of the corner alone is seen from one of them.
            $other = $this->route($ways, [0.0, $this->floor->at[$below], $triangle]);
            $route = null === $route || (null !== $other && $other->mm < $route->mm) ? $other : $route;
        }
        $length = $this->linked($above, $below);

        return null === $route ? null : new EscapeRoute(
            $route->mm + $length,
            [[$this->storeys[$this->on[$above]]->storey->id, $this->floor->at[$above]], ...$route->places],
            [$length, ...$route->legs],
            $route->doors,
            $route->narrowestMm,
            $route->against,
            [$this->stairs["$above $below"], ...$route->stairs],
            $route->exit,
        );
    }

    /**
     * @param list<StairWay> $ways
     *
     * @return array<int, int> by stair way, the corner where it ends on this storey
     */
    private function walked(int $n, Storey $storey, DerivedStorey $derived, array $ways): array
    {
        $taken = array_merge(...array_map(static fn (StairWay $way): array => $way->takes($n), $ways));
        $own = StoreyFloor::of($storey, $derived, $taken);
        [$places, $ends, $exits] = [[], [], []];
        foreach ($ways as $k => $way) {
            $end = $way->end($n);
            if (null !== $end) {
                $ends[$k] = \count($places);
                $places[] = $end;
            }
        }
        foreach ($own->doorways as $doorway) {
            foreach ($doorway->isExit() ? $doorway->middles() : [] as $side => $middle) {
                // Who stands on its right goes to its left.
                $exits[\count($places)] = [$doorway, 0 === $side ? 1 : -1];
                $places[] = $middle;
            }
        }
        $first = \count($this->floor->at);
        [$cells, $corners] = $this->floor->add($own->cells, $places);
        $this->storeys[] = new WalkedStorey($storey, $derived, $own, $cells);
        for ($v = $first; $v < \count($this->floor->at); ++$v) {
            $this->on[$v] = $n;
        }
        foreach ($exits as $k => $exit) {
            if (isset($corners[$k])) {
                $this->exits[$corners[$k]] = $exit;
            }
        }

        return array_filter(array_map(static fn (int $k): ?int => $corners[$k], $ends), is_int(...));
    }

    private function toFinal(): ShortestWays
    {
        return $this->toFinal ??= $this->ways(static fn (DoorExit $exit): bool => DoorExit::Final === $exit);
    }

    /**
     * @param list<string> $only keys of regions
     *
     * @return (\Closure(int): float)|null mm that are left at least from a corner to any of them; null where they lie on several storeys
     */
    private function toward(array $only): ?\Closure
    {
        [$on, $points] = [[], []];
        foreach ($this->storeys as $n => $storey) {
            foreach ($storey->derived->regions as $region) {
                if (\in_array($region->key, $only, true)) {
                    $on[$n] = $n;
                    array_push($points, ...$region->polygon);
                }
            }
        }
        if (1 !== \count($on) || [] === $points) {
            return null;
        }
        [$n] = array_values($on);
        [$left, $low, $right, $high] = Polygon::bounds($points);
        // Where a stair leads away there may be another way round, over another storey.
        $ends = [];
        foreach ($this->links as $v => $links) {
            foreach ($this->on[$v] === $n ? $links : [] as [, $mm]) {
                $ends[] = [...$this->floor->at[$v], $mm];
            }
        }

        return function (int $v) use ($n, $left, $low, $right, $high, $ends): float {
            if ($this->on[$v] !== $n) {
                return 0.0;
            }
            [$x, $y] = $this->floor->at[$v];
            $least = hypot(max(0.0, $left - $x, $x - $right), max(0.0, $low - $y, $y - $high));
            foreach ($ends as [$ex, $ey, $mm]) {
                $least = min($least, hypot($x - $ex, $y - $ey) + $mm);
            }

            return $least;
        };
    }

    /**
     * @param callable(DoorExit): bool $isWanted
     * @param (\Closure(int): float)|null $left
     */
    private function ways(callable $isWanted, ?\Closure $left = null): ShortestWays
    {
        $exits = array_filter($this->exits, static fn (array $exit): bool => $isWanted($exit[0]->opening->exit));

        return ShortestWays::to($this->floor, array_map(static fn (): float => 0.0, $exits), $this->links, $left);
    }

    /**
     * Ways to other exits, one exit after the other: those to all of them together would fill the memory.
     *
     * @param array<int, array{float, array{float, float}, int}> $places by room
     *
     * @return array<int, SecondWay>
     */
    private function seconds(ShortestWays $first, array $places): array
    {
        $exits = [];
        foreach ($this->exits as $v => [$doorway]) {
            $exits[$doorway->opening->id][$v] = 0.0;
        }
        $best = [];
        foreach (\count($exits) < 2 || !$this->looksForSeconds() ? [] : $exits as $exit => $corners) {
            $ways = ShortestWays::to($this->floor, $corners, $this->links);
            foreach ($places as $k => $place) {
                $way = $first->from($place[2], ...$place[1])[1] ?? [];
                $other = $ways->from($place[2], ...$place[1]);
                if ([] === $way || null === $other || $this->exits[$way[\count($way) - 1][0]][0]->opening->id === $exit) {
                    continue;
                }
                [$mm, $degrees] = $this->part($place[1], $way, $other[1]);
                $there = $best[$k] ?? null;
                $route = null === $there || [$mm, $other[0]] < [$there->singleMm, $there->route->mm] ? $this->route($ways, $place) : null;
                if (null !== $route) {
                    $best[$k] = new SecondWay($route, $mm, $degrees);
                }
            }
        }

        return $best;
    }

    /**
     * Where two ways from one place part.
     *
     * @param array{float, float} $at
     * @param list<array{int, array{float, float}}> $one
     * @param list<array{int, array{float, float}}> $other
     *
     * @return array{float, float} mm until then, and degrees between them there
     */
    private function part(array $at, array $one, array $other): array
    {
        [$mm, $before] = [0.0, -1];
        foreach ($one as $k => [$v, $to]) {
            if ($v !== ($other[$k][0] ?? null)) {
                [$ux, $uy] = [$to[0] - $at[0], $to[1] - $at[1]];
                [$wx, $wy] = isset($other[$k]) ? [$other[$k][1][0] - $at[0], $other[$k][1][1] - $at[1]] : [0.0, 0.0];

                return [$mm, rad2deg(abs(atan2($ux * $wy - $uy * $wx, $ux * $wx + $uy * $wy)))];
            }
            $mm += isset($this->stairs["$before $v"]) ? $this->linked($before, $v) : hypot($to[0] - $at[0], $to[1] - $at[1]);
            [$at, $before] = [$to, $v];
        }

        return [$mm, 0.0];
    }

    /** mm along a stair from one corner to another. */
    private function linked(int $from, int $to): float
    {
        return array_column($this->links[$from] ?? [], 1, 0)[$to] ?? 0.0;
    }

    /** @param array{float, array{float, float}, int} $place */
    private function route(ShortestWays $ways, array $place): ?EscapeRoute
    {
        $way = $ways->from($place[2], ...$place[1]);
        if (null === $way) {
            return null;
        }
        [$mm, $corners] = $way;
        [, $from, $triangle] = $place;
        $places = [[$this->storeys[$this->on[$this->floor->triangles[$triangle][0]]]->storey->id, $from]];
        /** @var list<array{Doorway, int}> $passed */
        [$passed, $stairs, $legs, $before] = [[], [], [], -1];
        foreach ($corners as [$v, $to]) {
            $stair = $this->stairs["$before $v"] ?? null;
            if (null !== $stair) {
                $stairs[] = $stair;
                $legs[] = $this->linked($before, $v);
            } else {
                $legs[] = hypot($to[0] - $from[0], $to[1] - $from[1]);
                array_push($passed, ...$this->passed($this->storeys[$this->on[$v]]->floor, $from, $to));
            }
            $places[] = [$this->storeys[$this->on[$v]]->storey->id, $to];
            [$before, $from] = [$v, $to];
        }
        $exit = $this->exits[$before];
        if (!\in_array($exit[0], array_column($passed, 0), true)) {
            $passed[] = $exit;
        }

        return new EscapeRoute(
            $mm,
            $places,
            $legs,
            array_map(static fn (array $p): string => $p[0]->opening->id, $passed),
            min([\INF, ...array_map(static fn (array $p): float => $p[0]->opening->width, $passed)]),
            array_values(array_map(
                static fn (array $p): string => $p[0]->opening->id,
                array_filter($passed, static fn (array $p): bool => $p[0]->isAgainst($p[1])),
            )),
            $stairs,
            $exit[0]->opening->id,
        );
    }

    /**
     * @param array{float, float} $from
     * @param array{float, float} $to
     *
     * @return list<array{Doorway, int}> doorways that a straight stretch passes, in their order, and which way
     */
    private function passed(StoreyFloor $floor, array $from, array $to): array
    {
        $passed = [];
        foreach ($floor->near($from, $to) as $doorway) {
            $there = $doorway->passed($from, $to);
            if (null !== $there) {
                $passed[] = [$there[0], [$doorway, $there[1]]];
            }
        }
        usort($passed, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return array_column($passed, 1);
    }
}
