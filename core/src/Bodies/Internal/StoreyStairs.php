<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Bodies\Refused;
use Plinth\Core\Bodies\ShownStair;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Model\Stair;
use Plinth\Core\Plan\Model\StairMeasure;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Stairs\StairForm;
use Plinth\Core\Stairs\StairLimits;
use Plinth\Core\Stairs\StairPlan;

/**
 * Stairs that go up from a storey, and those that arrive there.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Cut
 */
final readonly class StoreyStairs
{
    /** A wall stands under a stair where it does at all of these parts of its length. */
    private const UNDER_AT = [0.1, 0.5, 0.9];

    public function __construct(private Storey $storey, private Surroundings $around, private StairLimits $limits)
    {
    }

    /** @return list<ShownStair> as the plan shows them: those that go up first */
    public function shown(): array
    {
        $shown = [];
        foreach ($this->standing() as $form) {
            $arrival = $this->around->arrival($form->stair, $this->storey);
            $underside = null === $arrival ? null : $this->around->underside($this->storey, $arrival);
            $shown[] = new ShownStair($form, StairPlan::below($form), true, $this->limits->findings($form, $underside));
        }
        foreach ($this->around->below($this->storey) as $on) {
            foreach ($on->stairs as $stair) {
                $form = $this->around->arrival($stair, $on) === $this->storey ? $this->around->stair($stair, $on) : null;
                if (null !== $form) {
                    $shown[] = new ShownStair($form, StairPlan::above($form, $this->around->underside($on, $this->storey)), false, []);
                }
            }
        }

        return $shown;
    }

    /** @return list<Refused> those that cannot stand */
    public function refused(): array
    {
        $this->standing();
        $ids = array_map(static fn (Stair $s): string => $s->id, $this->storey->stairs);

        return array_values(array_filter($this->around->refused(), static fn (Refused $r): bool => \in_array($r->id, $ids, true)));
    }

    /**
     * @param list<string> $under walls that end at them and do not end them
     *
     * @return list<array{BodyKind, string, list<Cell>}> what each is made of, and the stair's id
     */
    public function bodies(Footprints $footprints, array $under): array
    {
        $bodies = [];
        foreach ($this->standing() as $form) {
            foreach ((new StairBody($form, $this->storey->elevation))->cells() as $run) {
                $bodies[] = [BodyKind::Stair, $form->stair->id, self::beside($run, $footprints, $under)];
            }
            $rails = (new StairRailing($form, $this->storey->elevation))->cells();
            $bodies[] = [BodyKind::Railing, $form->stair->id, self::beside($rails, $footprints, $under)];
        }

        return $bodies;
    }

    /** Whether a wall stands wholly under one of them. */
    public function covers(Wall $wall): bool
    {
        foreach ($this->standing() as $form) {
            $open = array_filter(self::UNDER_AT, static function (float $part) use ($form, $wall): bool {
                $at = $wall->at($part * $wall->length());
                foreach ($form->treads as $tread) {
                    if (Polygon::contains($tread->ring, $at->x, $at->y)) {
                        return false;
                    }
                }

                return true;
            });
            if ([] === $open) {
                return true;
            }
        }

        return false;
    }

    /** @return list<Covering> what ends walls under them */
    public function coverings(): array
    {
        return array_merge(...array_map(
            fn (StairForm $f): array => (new StairBody($f, $this->storey->elevation))->coverings(),
            $this->standing(),
        ));
    }

    /**
     * How much of a part of the plan lies under them.
     *
     * @param list<Ring> $rings counter-clockwise, holes clockwise
     *
     * @return array{float, float} mm²: all of it, and what of it is lower than the project counts in full
     */
    public function over(array $rings): array
    {
        $from = $this->storey->elevation + ($this->limits->limit(StairMeasure::Under)->least ?? 0.0);
        [$all, $low] = [[], []];
        foreach ($this->coverings() as $covering) {
            $all[] = $covering->rings[0];
            array_push($low, ...Cut::lower($covering->rings[0], $covering->bottom, $from));
        }

        return [Overlay::area(Cut::both($rings, $all)), Overlay::area(Cut::both($rings, $low))];
    }

    /** @return list<StairForm> */
    private function standing(): array
    {
        return array_values(array_filter(array_map(
            fn (Stair $s): ?StairForm => $this->around->stair($s, $this->storey),
            $this->storey->stairs,
        )));
    }

    /**
     * @param list<Cell> $cells
     * @param list<string> $under
     *
     * @return list<Cell> what other walls and columns leave of them
     */
    private static function beside(array $cells, Footprints $footprints, array $under): array
    {
        $left = [];
        foreach ($cells as $cell) {
            foreach ($footprints->beside($cell->rings, true, false, $under) as $shape) {
                $left[] = new Cell([$shape['outer'], ...$shape['holes']], $cell->spans);
            }
        }

        return $left;
    }
}
