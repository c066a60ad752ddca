<?php

declare(strict_types=1);

namespace Plinth\Core\Enclosure\Internal;

use Plinth\Core\Enclosure\EnclosedArea;
use Plinth\Core\Enclosure\EnclosureFinding;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Units\Length;

/**
 * What is wrong with enclosures.
 *
 * @internal
 */
final readonly class Findings
{
    /** mm²: less than this of two lies on each other unseen */
    private const SLIGHT_MM2 = 10_000.0;
    /** mm beyond a border, where one is in the room there */
    private const BEYOND = 50.0;

    /**
     * @param array<string, string> $names of classes by id
     * @param list<array{string, string}> $together ids of two classes each that may lie over one place
     */
    public function __construct(private Places $places, private array $names, private array $together)
    {
    }

    /** @return list<EnclosureFinding> */
    public function all(): array
    {
        return [...$this->open(), ...$this->overlaps(), ...$this->stops(), ...$this->gaps()];
    }

    /** @return list<EnclosureFinding> rooms that nothing closes round any more */
    private function open(): array
    {
        $findings = [];
        foreach ($this->places->areas as $area) {
            [$id, $of] = [$area->enclosure->storey, $area->enclosure];
            $closed = array_map(static fn (Region $r): ?string => $r->room?->id, $this->places->derived[$id]->regions);
            foreach ($this->places->storeys[$id]->rooms as $room) {
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
        foreach ($this->together as [$a, $b]) {
            $may[$a][$b] = $may[$b][$a] = true;
        }
        $findings = [];
        foreach ($this->places->areas as $i => $one) {
            foreach (\array_slice($this->places->areas, $i + 1) as $other) {
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
        foreach ([] === $this->places->areas ? [] : $this->passages() as [$what, $at, $below, $above]) {
            [$here, $there] = [$this->places->at($below->id, $at), $this->places->at($above->id, $at)];
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
                        $this->places->roomAt($where->id, $at, $area->enclosure),
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
        foreach ($this->places->storeys as $storey) {
            foreach ($storey->stairs as $stair) {
                $above = $stair->arrival($storey, $this->places->storeys);
                $middle = Middle::ofStair($stair);
                if (null !== $above && null !== $middle) {
                    $passages[] = ['The stair goes on', $middle, $storey, $above];
                }
            }
        }
        foreach ($this->places->storeys as $storey) {
            $below = null;
            foreach ($this->places->storeys as $other) {
                $isNearer = null === $below || $other->elevation > $below->elevation;
                $below = $other->elevation < $storey->elevation && $isNearer ? $other : $below;
            }
            if (null === $below) {
                continue;
            }
            foreach ($storey->voids as $void) {
                $middle = Polygon::labelPoint($void->outline->points());
                if (null !== $this->places->regionAt($storey->id, $middle) && null !== $this->places->regionAt($below->id, $middle)) {
                    $passages[] = ['The floor is open', $middle, $below, $storey];
                }
            }
        }

        return $passages;
    }

    /** @return list<EnclosureFinding> */
    private function gaps(): array
    {
        $findings = [];
        foreach ($this->places->areas as $area) {
            $storey = $this->places->storeys[$area->enclosure->storey];
            foreach (OpenBorder::of($area->rings(), $storey) as $line) {
                $at = Middle::ofLine($line);
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
     * @param array{float, float, float, float} $at a place on its border, and which way that runs
     *
     * @return string|null the room across the border there, if it is not in it
     */
    private function beyond(EnclosedArea $area, array $at): ?string
    {
        [$x, $y, $ux, $uy] = $at;
        foreach ([1.0, -1.0] as $side) {
            $place = [$x - $side * self::BEYOND * $uy, $y + $side * self::BEYOND * $ux];
            $room = $area->holds(...$place) ? null : $this->places->roomAt($area->enclosure->storey, $place, $area->enclosure);
            if (null !== $room) {
                return $room;
            }
        }

        return null;
    }
}
