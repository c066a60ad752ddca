<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Bodies\Refused;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Model\Dormer;
use Plinth\Core\Plan\Model\FloorVoid;
use Plinth\Core\Plan\Model\PitchedRoof;
use Plinth\Core\Plan\Model\Slab;
use Plinth\Core\Plan\Model\Stair;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Roof\Exception\UnbuildableRoof;
use Plinth\Core\Stairs\Exception\UnbuildableStair;
use Plinth\Core\Stairs\StairForm;

/**
 * What lies under, over and across a storey, of itself and of others: what ends or cuts that which stands there.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Cut
 */
final class Surroundings
{
    /** @var array<string, RoofBody|null> of all storeys, by id; null where it cannot stand */
    private array $roofs = [];
    /** @var array<string, StairForm|null> of all storeys, by id; null where it cannot stand */
    private array $stairs = [];
    /** @var array<string, list<non-empty-list<array{float, float}>>> by storey */
    private array $voids = [];
    /** @var array<string, Refused> of this storey */
    private array $refused = [];

    /** @param list<Storey> $others of the building */
    public function __construct(private readonly Storey $storey, private readonly array $others)
    {
    }

    /** @return list<Refused> what cannot stand, as far as it has been asked for */
    public function refused(): array
    {
        return array_values($this->refused);
    }

    public function refuse(string $id, string $message): void
    {
        $this->refused[$id] = new Refused($id, $message);
    }

    /**
     * What ends walls and columns: the floor that they stand on, what lies over them, and what passes through.
     *
     * @param list<Slab> $ceilings that end them, too
     * @param list<Covering> $more what else does
     */
    public function upright(array $ceilings, array $more = []): Upright
    {
        $through = [];
        foreach ($this->others as $other) {
            array_push($through, ...$this->roofsOf($other));
        }
        foreach ([$this->storey, ...$this->others] as $storey) {
            foreach ($storey->shafts as $shaft) {
                [$from, $to] = [$storey->elevation + $shaft->base, $storey->elevation + $shaft->top];
                $through[] = new Covering([Rings::of($shaft->outline)], HeightPlane::level($from), HeightPlane::level($to));
            }
        }
        $below = array_map(fn (Slab $f): Covering => $this->plate($f, $this->storey, true), $this->storey->floors);

        return new Upright($below, [...$this->over($this->storey, $ceilings), ...$more], $through);
    }

    /**
     * @param list<Slab> $ceilings of it that count
     *
     * @return list<Covering> what ends what stands on a storey: ceilings, the floor above, its own roofs
     */
    public function over(Storey $storey, array $ceilings): array
    {
        $over = array_map(fn (Slab $c): Covering => $this->plate($c, $storey), $ceilings);
        $next = $this->above($storey);
        if (null !== $next) {
            foreach ($next->floors as $floor) {
                $over[] = $this->plate($floor, $next);
            }
        }

        return [...$over, ...$this->roofsOf($storey)];
    }

    /** @param bool $isStoodOn whether what stands on it stands under its finish */
    public function plate(Slab $slab, Storey $storey, bool $isStoodOn = false): Covering
    {
        $top = $storey->elevation + $slab->top;
        $holes = [] === $storey->floors || !\in_array($slab, $storey->floors, true) ? [] : array_map(
            static fn (array $ring): array => array_reverse($ring),
            $this->voids($storey),
        );

        return new Covering(
            [Rings::of($slab->outline), ...$holes],
            HeightPlane::level($top - $slab->thickness),
            HeightPlane::level($isStoodOn ? $top - $slab->finish : $top),
        );
    }

    /** @return list<Covering> all parts of a storey's roofs that stand */
    public function roofsOf(Storey $storey): array
    {
        return array_merge(...array_map(fn (PitchedRoof $r): array => $this->roof($r, $storey)->coverings ?? [], $storey->roofs));
    }

    public function roof(PitchedRoof $roof, Storey $on): ?RoofBody
    {
        if (!\array_key_exists($roof->id, $this->roofs)) {
            try {
                $this->roofs[$roof->id] = RoofBody::of($roof, $on->elevation);
            } catch (UnbuildableRoof $e) {
                $this->roofs[$roof->id] = null;
                if ($on === $this->storey) {
                    $this->refuse($roof->id, $e->getMessage());
                }
            }
        }

        return $this->roofs[$roof->id];
    }

    /** The storey whose floor ends the walls of another. */
    public function above(Storey $storey): ?Storey
    {
        $next = null;
        foreach ([$this->storey, ...$this->others] as $other) {
            if ($other->elevation > $storey->elevation && $other->elevation < ($next->elevation ?? \INF)) {
                $next = $other;
            }
        }

        return $next;
    }

    /** @return list<non-empty-list<array{float, float}>> counter-clockwise: what is drawn, and what stairs that arrive need */
    public function voids(Storey $storey): array
    {
        return $this->voids[$storey->id] ??= $this->voidsOf($storey);
    }

    /** @return list<non-empty-list<array{float, float}>> */
    private function voidsOf(Storey $storey): array
    {
        $drawn = array_map(static fn (FloorVoid $v): array => Rings::of($v->outline), $storey->voids);
        $needed = [];
        foreach ([$this->storey, ...$this->others] as $below) {
            foreach ($below->stairs as $stair) {
                if ($this->arrival($stair, $below) === $storey) {
                    $shapes = $this->stair($stair, $below)?->opening($this->underside($below, $storey)) ?? [];
                    array_push($needed, ...array_column($shapes, 'outer'));
                }
            }
        }

        return [] === $needed ? $drawn : array_column(Overlay::union([...$drawn, ...$needed]), 'outer');
    }

    /** A stair as it stands between its storeys; null where it cannot. */
    public function stair(Stair $stair, Storey $on): ?StairForm
    {
        if (!\array_key_exists($stair->id, $this->stairs)) {
            try {
                $height = ($this->arrival($stair, $on)->elevation ?? $on->elevation + $on->height) - $on->elevation;
                $this->stairs[$stair->id] = StairForm::of($stair, $height);
            } catch (UnbuildableStair $e) {
                $this->stairs[$stair->id] = null;
                if ($on === $this->storey) {
                    $this->refuse($stair->id, $e->getMessage());
                }
            }
        }

        return $this->stairs[$stair->id];
    }

    /** The storey where a stair arrives; null where there is none above. */
    public function arrival(Stair $stair, Storey $on): ?Storey
    {
        return $stair->arrival($on, [$this->storey, ...$this->others]);
    }

    /** @return list<Storey> of which this one may be where a stair arrives */
    public function below(Storey $storey): array
    {
        return array_values(array_filter($this->others, static fn (Storey $s): bool => $s->elevation < $storey->elevation));
    }

    /** @return float mm, lowest underside of the floors of a storey over the level of one below it */
    public function underside(Storey $below, Storey $above): float
    {
        $lowest = $above->elevation;
        foreach ($above->floors as $floor) {
            $lowest = min($lowest, $above->elevation + $floor->top - $floor->thickness);
        }

        return $lowest - $below->elevation;
    }

    /** @return list<non-empty-list<array{float, float}>> shafts of any storey that pass a slab of this one */
    public function passing(Slab $slab): array
    {
        $passing = [];
        $top = $this->storey->elevation + $slab->top;
        foreach ([$this->storey, ...$this->others] as $storey) {
            foreach ($storey->shafts as $shaft) {
                if ($storey->elevation + $shaft->base < $top && $storey->elevation + $shaft->top > $top - $slab->thickness) {
                    $passing[] = Rings::of($shaft->outline);
                }
            }
        }

        return $passing;
    }

    /** @return list<non-empty-list<array{float, float}>> shafts of any storey that are there at a height */
    public function shaftsAt(float $z): array
    {
        $rings = [];
        foreach ([$this->storey, ...$this->others] as $storey) {
            foreach ($storey->shafts as $shaft) {
                if ($storey->elevation + $shaft->base <= $z && $storey->elevation + $shaft->top > $z) {
                    $rings[] = Rings::of($shaft->outline);
                }
            }
        }

        return $rings;
    }

    /** @return list<Ring> what is cut out of a part of a roof */
    public function throughRoof(Covering $covering): array
    {
        $open = [];
        foreach ([$this->storey, ...$this->others] as $storey) {
            foreach ($storey->shafts as $shaft) {
                // One that ends below the roof leaves it whole.
                if ($storey->elevation + $shaft->base < $covering->highest) {
                    array_push($open, ...Cut::lower(Rings::of($shaft->outline), $covering->bottom, $storey->elevation + $shaft->top));
                }
            }
        }
        foreach ($this->storey->dormers as $dormer) {
            $lid = $this->storey->elevation + $dormer->top - $dormer->thickness;
            foreach (self::inner($dormer) as $ring) {
                // Only where the dormer rises over the roof.
                foreach (Cut::lower($ring, $covering->top, $lid) as $part) {
                    $open[] = $part;
                }
            }
        }

        return array_values(array_filter($open, static fn (array $ring): bool => $covering->isNear(Polygon::bounds($ring))));
    }

    /** @return list<non-empty-list<array{float, float}>> a dormer's inside, counter-clockwise; none where its walls take up all of it */
    public static function inner(Dormer $dormer): array
    {
        return Outward::inset(Rings::of($dormer->outline), $dormer->thickness);
    }
}
