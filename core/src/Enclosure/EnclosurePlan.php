<?php

declare(strict_types=1);

namespace Plinth\Core\Enclosure;

use Plinth\Core\Enclosure\Internal\OpenBorder;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\Enclosure;
use Plinth\Core\Plan\Model\FireSafety;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Stair;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Units\Length;

/** All enclosures of a building: what they cover, their key, and what is wrong with them. */
final readonly class EnclosurePlan
{
    /** mm²: less than this of two lies on each other unseen */
    private const SLIGHT_MM2 = 10_000.0;
    /** mm of a way that nobody walks */
    private const HAIR_MM = 0.01;
    /** mm of a way that may lie in a doorway between two enclosures */
    private const THROUGH_MM = 800.0;
    /** mm beyond the faces of a wall, where one is in the room there */
    private const BEYOND = 50.0;

    /**
     * @param list<EnclosedArea> $areas
     * @param array<string, string> $names of classes by id
     * @param array<string, Storey> $storeys by id
     * @param array<string, DerivedStorey> $derived by id of the storey
     */
    private function __construct(
        public array $areas,
        private array $names,
        private FireSafety $fire,
        private array $storeys,
        private array $derived,
    ) {
    }

    /** @param array<string, DerivedStorey> $known by id of the storey; others are derived */
    public static function of(Plan $plan, array $known = []): self
    {
        $storeys = array_column($plan->storeys, null, 'id');
        $derived = [];
        foreach ([] === $plan->fire->enclosures ? [] : $storeys as $id => $storey) {
            $derived[$id] = $known[$id] ?? Derivation::of($storey);
        }
        $own = array_values(array_filter($plan->fire->enclosures, static fn (Enclosure $e): bool => isset($derived[$e->storey])));

        return new self(
            array_map(static fn (Enclosure $e): EnclosedArea => EnclosedArea::of($e, $derived[$e->storey]), $own),
            array_column($plan->fire->classes, 'name', 'id'),
            $plan->fire,
            $storeys,
            $derived,
        );
    }

    /** @return array<string, array<string, float>> mm² by class, and by storey: what lies in two of one class counts once */
    public function totals(): array
    {
        $rings = [];
        foreach ($this->areas as $area) {
            $rings[$area->enclosure->class][$area->enclosure->storey][] = $area->rings();
        }
        $totals = [];
        foreach ($rings as $class => $storeys) {
            foreach ($storeys as $storey => $of) {
                $totals[$class][$storey] = Overlay::area(Overlay::union(array_merge(...$of)));
            }
        }

        return $totals;
    }

    /** @return list<EnclosureFinding> */
    public function findings(): array
    {
        return [...$this->open(), ...$this->overlaps(), ...$this->stops(), ...$this->gaps()];
    }

    /** The class of what encloses a place, the first of several; null where nothing does. */
    public function classAt(string $storey, float $x, float $y): ?string
    {
        foreach ($this->at($storey, [$x, $y]) as $area) {
            return $area->enclosure->class;
        }

        return null;
    }

    /**
     * What a way runs in. Where it passes a wall between two enclosures of one class it has not left them.
     *
     * @param non-empty-list<array{string, array{float, float}}> $places with their storeys
     * @param list<float> $legs mm from each to the next
     *
     * @return list<array{string|null, float}> class, or none, and for how many mm, one after the other
     */
    public function along(array $places, array $legs): array
    {
        $runs = [];
        foreach ($legs as $i => $mm) {
            [[$storey, $from], [$next, $to]] = [$places[$i], $places[$i + 1]];
            if ($storey !== $next) {
                // A stair is enclosed where both of its ends are.
                $class = $this->classAt($storey, ...$from);
                $runs[] = [$class === $this->classAt($next, ...$to) ? $class : null, $mm];
                continue;
            }
            $cuts = $this->cuts($storey, $from, $to);
            for ($k = 1; $k < \count($cuts); ++$k) {
                if ($mm * ($cuts[$k] - $cuts[$k - 1]) < self::HAIR_MM) {
                    continue; // on the border itself
                }
                $t = ($cuts[$k - 1] + $cuts[$k]) / 2.0;
                $class = $this->classAt($storey, $from[0] + $t * ($to[0] - $from[0]), $from[1] + $t * ($to[1] - $from[1]));
                $runs[] = [$class, $mm * ($cuts[$k] - $cuts[$k - 1])];
            }
        }

        return self::merged($runs);
    }

    /** @return array<string, list<string>> classes of what each wall bounds, by id of the wall, in their order */
    public function bounding(): array
    {
        $bounding = [];
        foreach ($this->areas as $area) {
            foreach ($this->derived[$area->enclosure->storey]->walls as $id => $shape) {
                foreach ($shape->stretches as ['right' => $right, 'left' => $left]) {
                    if ([] !== $right && [] !== $left && $this->isBetween($area, self::halfway($right), self::halfway($left))) {
                        $bounding[$id][$area->enclosure->class] = true;
                    }
                }
            }
        }

        return array_map(static fn (array $classes): array => array_map(strval(...), array_keys($classes)), $bounding);
    }

    /**
     * @param array{float, float, float, float} $right a place on the right face of a wall
     * @param array{float, float, float, float} $left and on its left one
     */
    private function isBetween(EnclosedArea $area, array $right, array $left): bool
    {
        $thick = max(1e-6, hypot($right[0] - $left[0], $right[1] - $left[1]));
        [$u, $v] = [self::BEYOND * ($right[0] - $left[0]) / $thick, self::BEYOND * ($right[1] - $left[1]) / $thick];

        return $area->holds($right[0] + $u, $right[1] + $v) !== $area->holds($left[0] - $u, $left[1] - $v);
    }

    /** @return list<EnclosureDoor> doors and openings in what bounds each */
    public function doors(): array
    {
        $doors = [];
        foreach ($this->areas as $area) {
            foreach ($this->storeys[$area->enclosure->storey]->openings ?? [] as $opening) {
                $ring = $this->derived[$area->enclosure->storey]->openings[$opening->id] ?? null;
                if (null === $ring || OpeningKind::Window === $opening->kind) {
                    continue;
                }
                $n = intdiv(\count($ring), 2);
                $right = self::between($ring[0], $ring[$n - 1]);
                $left = self::between($ring[$n], $ring[2 * $n - 1]);
                if ($this->isBetween($area, [...$right, 0.0, 0.0], [...$left, 0.0, 0.0])) {
                    $doors[] = new EnclosureDoor($area->enclosure->id, $opening);
                }
            }
        }

        return $doors;
    }

    /** @return list<EnclosureFinding> rooms that nothing closes round any more */
    private function open(): array
    {
        $findings = [];
        foreach ($this->areas as $area) {
            [$id, $of] = [$area->enclosure->storey, $area->enclosure];
            $closed = array_map(static fn (Region $r): ?string => $r->room?->id, $this->derived[$id]->regions);
            foreach ($this->storeys[$id]->rooms as $room) {
                if (\in_array($room->id, $of->rooms, true) && !\in_array($room->id, $closed, true)) {
                    $findings[] = new EnclosureFinding('open', [$of->id], $id, $room->anchor->toArray(), \sprintf(
                        'No region has %s for its only name, so that %s does not cover it. Close the walls round it.',
                        '' === $room->name ? 'this room' : $room->name,
                        $this->names[$of->class],
                    ));
                }
            }
        }

        return $findings;
    }

    /** @return list<EnclosureFinding> */
    private function overlaps(): array
    {
        $may = [];
        foreach ($this->fire->together as [$a, $b]) {
            $may[$a][$b] = $may[$b][$a] = true;
        }
        $findings = [];
        foreach ($this->areas as $i => $one) {
            foreach (\array_slice($this->areas, $i + 1) as $other) {
                [$a, $b] = [$one->enclosure->class, $other->enclosure->class];
                if ($one->enclosure->storey !== $other->enclosure->storey || $a === $b || isset($may[$a][$b])) {
                    continue;
                }
                $both = Overlay::parts([$one->rings(), $other->rings()], static fn (array $w): bool => $w[0] > 0 && $w[1] > 0);
                if (Overlay::area($both) > self::SLIGHT_MM2) {
                    $findings[] = new EnclosureFinding(
                        'overlap',
                        [$one->enclosure->id, $other->enclosure->id],
                        $one->enclosure->storey,
                        EnclosedArea::inside($both) ?? [0.0, 0.0],
                        \sprintf(
                            '%s and %s lie over one place here. Draw one of them elsewhere, or allow the two together.',
                            $this->names[$a],
                            $this->names[$b],
                        ),
                    );
                }
            }
        }

        return $findings;
    }

    /** @return list<EnclosureFinding> where one storey is open to another, and what it is enclosed by stops */
    private function stops(): array
    {
        $findings = [];
        foreach ([] === $this->areas ? [] : $this->passages() as [$what, $at, $below, $above]) {
            [$here, $there] = [$this->at($below->id, $at), $this->at($above->id, $at)];
            foreach ([[$here, $there, $above], [$there, $here, $below]] as [$from, $to, $where]) {
                foreach (array_diff_key($from, $to) as $key => $area) {
                    // The floor is open about a stair, too: that is said once.
                    $findings[$area->enclosure->id.' '.$where->id] ??= new EnclosureFinding(
                        'stops',
                        [$area->enclosure->id],
                        $where->id,
                        $at,
                        \sprintf(
                            '%s here, and %s does not. Enclose it on %s as well.',
                            $what,
                            $this->names[$key],
                            '' === $where->name ? 'this storey' : $where->name,
                        ),
                        $this->roomAt($where->id, $at, $area->enclosure),
                    );
                }
            }
        }

        return array_values($findings);
    }

    /** @return list<array{string, array{float, float}, Storey, Storey}> what leads on, where, from which storey to which one above */
    private function passages(): array
    {
        $passages = [];
        foreach ($this->storeys as $storey) {
            foreach ($storey->stairs as $stair) {
                $above = $stair->arrival($storey, $this->storeys);
                $middle = self::middleOf($stair);
                if (null !== $above && null !== $middle) {
                    $passages[] = ['The stair goes on', $middle, $storey, $above];
                }
            }
        }
        foreach ($this->storeys as $storey) {
            $below = null;
            foreach ($this->storeys as $other) {
                $isNearer = null === $below || $other->elevation > $below->elevation;
                $below = $other->elevation < $storey->elevation && $isNearer ? $other : $below;
            }
            if (null === $below) {
                continue;
            }
            foreach ($storey->voids as $void) {
                $middle = Polygon::labelPoint($void->outline->points());
                if (null !== $this->regionAt($storey->id, $middle) && null !== $this->regionAt($below->id, $middle)) {
                    $passages[] = ['The floor is open', $middle, $below, $storey];
                }
            }
        }

        return $passages;
    }

    /** The class that a stair runs in, the first of several; null where nothing encloses it. */
    public function ofStair(Storey $storey, Stair $stair): ?string
    {
        $middle = self::middleOf($stair);

        return null === $middle ? null : $this->classAt($storey->id, ...$middle);
    }

    /** @return list<EnclosureFinding> */
    private function gaps(): array
    {
        $findings = [];
        foreach ($this->areas as $area) {
            $storey = $this->storeys[$area->enclosure->storey];
            foreach (OpenBorder::of($area->rings(), $storey) as $line) {
                $at = self::halfway($line);
                $findings[] = new EnclosureFinding(
                    'gap',
                    [$area->enclosure->id],
                    $storey->id,
                    [$at[0], $at[1]],
                    \sprintf(
                        'No wall stands along %s of what bounds %s here. Trace the wall, or enclose what lies beyond.',
                        Length::told(OpenBorder::length($line)),
                        $this->names[$area->enclosure->class],
                    ),
                    $this->beyond($area, $at),
                );
            }
        }

        return $findings;
    }

    /**
     * @param array{float, float} $from
     * @param array{float, float} $to
     *
     * @return non-empty-list<float> where borders cross a straight leg, as parts of it, from 0 to 1
     */
    private function cuts(string $storey, array $from, array $to): array
    {
        $cuts = [0.0, 1.0];
        [$dx, $dy] = [$to[0] - $from[0], $to[1] - $from[1]];
        foreach ($this->areas as $area) {
            foreach ($area->enclosure->storey === $storey ? $area->rings() : [] as $ring) {
                $a = $ring[\count($ring) - 1];
                foreach ($ring as $b) {
                    [$ex, $ey] = [$b[0] - $a[0], $b[1] - $a[1]];
                    $det = $dx * $ey - $dy * $ex;
                    if (0.0 !== $det) {
                        $t = (($a[0] - $from[0]) * $ey - ($a[1] - $from[1]) * $ex) / $det;
                        $s = (($a[0] - $from[0]) * $dy - ($a[1] - $from[1]) * $dx) / $det;
                        if ($t > 0.0 && $t < 1.0 && $s >= 0.0 && $s <= 1.0) {
                            $cuts[] = $t;
                        }
                    }
                    $a = $b;
                }
            }
        }
        sort($cuts);

        return $cuts;
    }

    /**
     * @param list<array{string|null, float}> $runs
     *
     * @return list<array{string|null, float}> those of one class in one, with what of a wall lies between them
     */
    private static function merged(array $runs): array
    {
        $merged = [];
        // With its end twice, as what is left behind an exit's wall is no more than that wall.
        foreach ([...$runs, [$runs[\count($runs) - 1][0] ?? null, 0.0]] as $n => [$class, $mm]) {
            $last = array_pop($merged);
            $before = $merged[\count($merged) - 1] ?? null;
            $isWall = null !== $last && null !== $before && null === $last[0] && $last[1] < self::THROUGH_MM;
            if (null === $last) {
                $merged[] = [$class, $mm];
            } elseif ($last[0] === $class && !($isWall && $n === \count($runs))) {
                $merged[] = [$class, $last[1] + $mm];
            } elseif ($isWall && ($before[0] === $class || $n === \count($runs))) {
                array_pop($merged);
                $merged[] = [$before[0], $before[1] + $last[1] + $mm];
            } else {
                array_push($merged, $last, [$class, $mm]);
            }
        }

        return $merged;
    }

    /**
     * @param array{float, float} $place
     *
     * @return array<string, EnclosedArea> by class
     */
    private function at(string $storey, array $place): array
    {
        $found = [];
        foreach ($this->areas as $area) {
            if ($area->enclosure->storey === $storey && $area->holds(...$place)) {
                $found[$area->enclosure->class] ??= $area;
            }
        }

        return $found;
    }

    /**
     * @param array{float, float, float, float} $at a place on its border, and which way that runs
     *
     * @return string|null the room across the border there, if it is not in it
     */
    private function beyond(EnclosedArea $area, array $at): ?string
    {
        [$x, $y, $ux, $uy] = $at;
        foreach ([1.0, -1.0] as $side) {
            $place = [$x - $side * self::BEYOND * $uy, $y + $side * self::BEYOND * $ux];
            $room = $area->holds(...$place) ? null : $this->roomAt($area->enclosure->storey, $place, $area->enclosure);
            if (null !== $room) {
                return $room;
            }
        }

        return null;
    }

    /**
     * @param array{float, float} $place
     *
     * @return string|null the room at a place, where it is not in an enclosure
     */
    private function roomAt(string $storey, array $place, Enclosure $of): ?string
    {
        $room = $this->regionAt($storey, $place)?->room;

        return null === $room || \in_array($room->id, $of->rooms, true) ? null : $room->id;
    }

    /** @param array{float, float} $place */
    private function regionAt(string $storey, array $place): ?Region
    {
        foreach ($this->derived[$storey]->regions as $region) {
            if ($region->holds(...$place)) {
                return $region;
            }
        }

        return null;
    }

    /**
     * @param non-empty-list<array{float, float}> $line
     *
     * @return array{float, float, float, float} the middle of its longest stretch, and which way that runs
     */
    private static function halfway(array $line): array
    {
        $longest = 0.0;
        $at = [...$line[0], 0.0, 0.0];
        for ($i = 1; $i < \count($line); ++$i) {
            [[$ax, $ay], [$bx, $by]] = [$line[$i - 1], $line[$i]];
            $mm = hypot($bx - $ax, $by - $ay);
            if ($mm > $longest) {
                $longest = $mm;
                $at = [($ax + $bx) / 2.0, ($ay + $by) / 2.0, ($bx - $ax) / $mm, ($by - $ay) / $mm];
            }
        }

        return $at;
    }

    /** @return array{float, float}|null in the middle of what is walked on */
    private static function middleOf(Stair $stair): ?array
    {
        $places = [] !== $stair->treads ? $stair->treads[intdiv(\count($stair->treads), 2)]->points() : array_map(
            static fn ($p): array => $p->toArray(),
            \count($stair->line) < 2 ? [] : \array_slice($stair->line, intdiv(\count($stair->line) - 1, 2), 2),
        );

        return [] === $places ? null : [
            array_sum(array_column($places, 0)) / \count($places), array_sum(array_column($places, 1)) / \count($places),
        ];
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     *
     * @return array{float, float}
     */
    private static function between(array $a, array $b): array
    {
        return [($a[0] + $b[0]) / 2.0, ($a[1] + $b[1]) / 2.0];
    }
}
