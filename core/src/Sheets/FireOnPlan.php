<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

use Plinth\Core\Enclosure\EnclosedArea;
use Plinth\Core\Enclosure\EnclosurePlan;
use Plinth\Core\Escape\EscapePlan;
use Plinth\Core\Escape\RoomEscape;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Model\EscapeMeasure;
use Plinth\Core\Plan\Model\FireClass;
use Plinth\Core\Plan\Model\Plan;

/** What sheets show of fire: enclosures, and ways out; each worked out once, and only where it is asked for. */
final class FireOnPlan
{
    private ?EnclosurePlan $enclosures = null;
    private ?EscapePlan $escape = null;
    /** @var list<RoomEscape>|null */
    private ?array $ways = null;
    /** @var array<string, FireClass> */
    private readonly array $classes;

    /** @param \Closure(): array<string, DerivedStorey> $known storeys as they were derived */
    public function __construct(private readonly Plan $plan, private readonly \Closure $known)
    {
        $this->classes = array_column($plan->fire->classes, null, 'id');
    }

    public static function of(Plan $plan): self
    {
        return new self($plan, static fn (): array => []);
    }

    public function enclosures(): EnclosurePlan
    {
        return $this->enclosures ??= EnclosurePlan::of($this->plan, ($this->known)());
    }

    /** @return list<array{FireClass, EnclosedArea}> of a storey */
    public function on(string $storey): array
    {
        $on = [];
        foreach ($this->enclosures()->areas as $area) {
            $class = $this->classes[$area->enclosure->class] ?? null;
            if (null !== $class && $area->enclosure->storey === $storey) {
                $on[] = [$class, $area];
            }
        }

        return $on;
    }

    /** @return list<FireClass> that enclose anything, in the order of the key */
    public function key(): array
    {
        $used = array_map(static fn (EnclosedArea $a): string => $a->enclosure->class, $this->enclosures()->areas);

        return array_values(array_filter($this->plan->fire->classes, static fn (FireClass $c): bool => \in_array($c->id, $used, true)));
    }

    /** @return list<RoomEscape> none where no door is an exit */
    public function ways(): array
    {
        return $this->ways ??= EscapePlan::hasExits($this->plan) ? $this->escape()->rooms() : [];
    }

    /** @return list<array{EscapeMeasure, string}> what of the project's limits a room does not keep, in words */
    public function broken(RoomEscape $room): array
    {
        return $this->escape()->limits()->broken($room);
    }

    private function escape(): EscapePlan
    {
        return $this->escape ??= new EscapePlan($this->plan, ($this->known)());
    }
}
