<?php

declare(strict_types=1);

namespace Plinth\Core\Enclosure;

use Plinth\Core\Enclosure\Internal\OpenBorder;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Stair;
use Plinth\Core\Plan\Model\Storey;

/** All enclosures of a building: what they cover, their key, and what is wrong with them. */
final readonly class EnclosurePlan
{
    /** mm²: less than this of two lies on each other unseen */
    private const SLIGHT_MM2 = 10_000.0;
    /** mm beyond the faces of a wall, where one is in the room there */
    private const BEYOND = 50.0;

    /**
     * @param list<EnclosedArea> $areas
     * @param array<string, string> $names of classes by key, as they were spelled first
     * @param array<string, Storey> $storeys by id
     * @param array<string, DerivedStorey> $derived by id of the storey
     */
    private function __construct(public array $areas, public array $names, private array $storeys, private array $derived)
    {
    }

    /**
     * @param list<Enclosure> $enclosures in the order in which they were made
     * @param array<string, DerivedStorey> $derived by id of the storey
     */
    public static function of(Plan $plan, array $derived, array $enclosures): self
    {
        $own = array_values(array_filter($enclosures, static fn (Enclosure $e): bool => isset($derived[$e->storey])));

        return new self(
            array_map(static fn (Enclosure $e): EnclosedArea => EnclosedArea::of($e, $derived[$e->storey]), $own),
            FireClass::names(array_map(static fn (Enclosure $e): string => $e->class, $own)),
            array_column($plan->storeys, null, 'id'),
            $derived,
        );
    }

    /** @return array<string, array<string, float>> mm² by key of the class, and by storey: what lies in two of one class counts once */
    public function totals(): array
    {
        $rings = [];
        foreach ($this->areas as $area) {
            $rings[FireClass::key($area->enclosure->class)][$area->enclosure->storey][] = $area->rings();
        }
        $totals = [];
        foreach ($rings as $class => $storeys) {
            foreach ($storeys as $storey => $of) {
                $totals[$class][$storey] = Overlay::area(Overlay::union(array_merge(...$of)));
            }
        }

        return $totals;
    }

    /**
     * @param list<array{string, string}> $allowed pairs of classes that may lie over one place
     *
     * @return list<EnclosureFinding>
     */
    public function findings(array $allowed = []): array
    {
        return [...$this->overlaps($allowed), ...$this->stops(), ...$this->gaps()];
    }

    /** @return list<EnclosureDoor> doors and openings in what bounds each */
    public function doors(): array
    {
        $doors = [];
        foreach ($this->areas as $area) {
            foreach ($this->storeys[$area->enclosure->storey]->openings ?? [] as $opening) {
                $ring = $this->derived[$area->enclosure->storey]->openings[$opening->id] ?? null;
                if (null === $ring) {
                    continue;
                }
                $n = intdiv(\count($ring), 2);
                [$right, $left] = [self::between($ring[0], $ring[$n - 1]), self::between($ring[$n], $ring[2 * $n - 1])];
                $thick = max(1e-6, hypot($right[0] - $left[0], $right[1] - $left[1]));
                [$u, $v] = [self::BEYOND * ($right[0] - $left[0]) / $thick, self::BEYOND * ($right[1] - $left[1]) / $thick];
                if ($area->holds($right[0] + $u, $right[1] + $v) !== $area->holds($left[0] - $u, $left[1] - $v)) {
                    $doors[] = new EnclosureDoor($area->enclosure->id, $opening);
                }
            }
        }

        return $doors;
    }

    /**
     * @param list<array{string, string}> $allowed
     *
     * @return list<EnclosureFinding>
     */
    private function overlaps(array $allowed): array
    {
        $may = [];
        foreach ($allowed as [$a, $b]) {
            $may[FireClass::key($a)][FireClass::key($b)] = $may[FireClass::key($b)][FireClass::key($a)] = true;
        }
        $findings = [];
        foreach ($this->areas as $i => $one) {
            foreach (\array_slice($this->areas, $i + 1) as $other) {
                [$a, $b] = [FireClass::key($one->enclosure->class), FireClass::key($other->enclosure->class)];
                if ($one->enclosure->storey !== $other->enclosure->storey || $a === $b || isset($may[$a][$b])) {
                    continue;
                }
                $both = Overlay::parts([$one->rings(), $other->rings()], static fn (array $w): bool => $w[0] > 0 && $w[1] > 0);
                if (Overlay::area($both) > self::SLIGHT_MM2) {
                    $findings[] = new EnclosureFinding(
                        'overlap',
                        [$one->enclosure->id, $other->enclosure->id],
                        $one->enclosure->storey,
                        self::inside($both),
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

    /** @return list<EnclosureFinding> where a stair goes on and what it is enclosed by does not */
    private function stops(): array
    {
        $findings = [];
        $storeys = array_values($this->storeys);
        usort($storeys, static fn (Storey $a, Storey $b): int => $a->elevation <=> $b->elevation);
        foreach ($storeys as $n => $storey) {
            foreach ($storey->stairs as $stair) {
                $above = self::arrival($stair, $storey, $storeys) ?? $storeys[$n + 1] ?? null;
                $middle = self::middleOf($stair);
                if (null === $above || null === $middle) {
                    continue;
                }
                [$here, $there] = [$this->at($storey->id, $middle), $this->at($above->id, $middle)];
                foreach ([[$here, $there, $above], [$there, $here, $storey]] as [$from, $to, $where]) {
                    foreach (array_diff_key($from, $to) as $key => $area) {
                        $findings[] = new EnclosureFinding(
                            'stops',
                            [$area->enclosure->id],
                            $where->id,
                            $middle,
                            \sprintf(
                                'The stair goes on here, and %s does not. Enclose it on %s as well.',
                                $this->names[$key],
                                '' === $where->name ? 'this storey' : $where->name,
                            ),
                        );
                    }
                }
            }
        }

        return $findings;
    }

    /** @return list<EnclosureFinding> */
    private function gaps(): array
    {
        $findings = [];
        foreach ($this->areas as $area) {
            $storey = $this->storeys[$area->enclosure->storey];
            foreach (OpenBorder::of($area->rings(), $storey) as [$from, $to]) {
                $findings[] = new EnclosureFinding(
                    'gap',
                    [$area->enclosure->id],
                    $storey->id,
                    self::between($from, $to),
                    \sprintf(
                        'No wall stands along %d mm of what bounds %s here. Trace the wall, or let the outline follow one.',
                        (int) round(hypot($to[0] - $from[0], $to[1] - $from[1])),
                        $this->names[FireClass::key($area->enclosure->class)],
                    ),
                );
            }
        }

        return $findings;
    }

    /**
     * @param array{float, float} $place
     *
     * @return array<string, EnclosedArea> by key of the class
     */
    private function at(string $storey, array $place): array
    {
        $found = [];
        foreach ($this->areas as $area) {
            if ($area->enclosure->storey === $storey && $area->holds(...$place)) {
                $found[FireClass::key($area->enclosure->class)] ??= $area;
            }
        }

        return $found;
    }

    /** @param list<Storey> $storeys */
    private static function arrival(Stair $stair, Storey $on, array $storeys): ?Storey
    {
        foreach ($storeys as $storey) {
            if ($storey->id === $stair->reaches && $storey->elevation > $on->elevation) {
                return $storey;
            }
        }

        return null;
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

    /**
     * @param list<array{outer: non-empty-list<array{float, float}>, holes: list<non-empty-list<array{float, float}>>}> $shapes
     *
     * @return array{float, float} well inside the largest of them
     */
    private static function inside(array $shapes): array
    {
        usort($shapes, static fn (array $a, array $b): int => Overlay::area([$b]) <=> Overlay::area([$a]));

        return [] === $shapes ? [0.0, 0.0] : Polygon::labelPoint($shapes[0]['outer'], $shapes[0]['holes']);
    }
}
