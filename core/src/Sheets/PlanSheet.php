<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\BodyOutline;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Derivation\WallShape;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Sheets\Internal\BesideInk;
use Plinth\Core\Sheets\Internal\Stamps;
use Plinth\Core\Units\AreaUnit;
use Plinth\Core\Units\DisplayUnit;

/**
 * The plan of a storey as it is drawn on a sheet: what is cut is filled and drawn wide, leaves and panes narrow (ISO 128), rooms with their
 * stamps, chains of dimensions round it.
 *
 * @phpstan-type Ring non-empty-list<array{float, float}>
 */
final class PlanSheet
{
    private const CUT_GREY = 0.72;
    /** Pieces of the arc that a leaf swings along. */
    private const SWING = 16;

    /** @var list<InkArea> */
    private array $areas = [];
    /** @var list<InkLine> */
    private array $lines = [];

    private function __construct(private readonly PlanOnPaper $paper)
    {
    }

    /** @return array{float, float, float, float}|null how far a storey reaches: xmin, ymin, xmax, ymax, mm; null without walls */
    public static function extent(Storey $storey, DerivedStorey $derived): ?array
    {
        $columns = [] === $derived->outlines ? [] : array_map(static fn (Column $c): array => $c->outline(), $storey->columns);
        $points = array_merge([], ...array_map(static fn (BodyOutline $o): array => $o->outer, $derived->outlines), ...$columns);

        return [] === $points ? null : Polygon::bounds($points);
    }

    public static function of(
        Storey $storey,
        DerivedStorey $derived,
        PlanOnPaper $paper,
        DisplayUnit $unit,
        AreaUnit $areas,
        PlanBeside $beside = new PlanBeside(),
    ): SheetInk {
        $plan = new self($paper);
        $cutOuts = array_values($derived->openings);
        $walls = $plan->walls($derived, $cutOuts);
        foreach ($storey->openings as $opening) {
            $cutOut = $derived->openings[$opening->id] ?? null;
            foreach ($storey->walls as $wall) {
                if (null !== $cutOut && $wall->id === $opening->wall) {
                    $plan->opening($opening, $cutOut);
                }
            }
        }
        foreach ($storey->columns as $column) {
            $ring = array_map($paper->of(...), $column->outline());
            $plan->areas[] = new InkArea([$ring], self::CUT_GREY);
            $plan->lines[] = new InkLine($ring, InkLine::WIDE, closed: true);
            $walls[] = $ring;
        }
        $rings = array_map(static fn (BodyOutline $o): array => $o->outer, $derived->outlines);
        [$chainLines, $figures] = OutsideChains::round(
            $rings,
            $cutOuts,
            array_map(static fn (Region $r): array => $r->polygon, $derived->regions),
            array_map(static fn (Column $c): array => $c->outline(), $storey->columns),
            $paper,
            $unit->format(),
        );
        $more = BesideInk::of($storey->objects, $beside, $paper, $unit);
        $stamps = Stamps::in(array_map(
            static fn (Region $r): array => [
                array_map($paper->of(...), $r->polygon),
                $paper->of($r->label),
                trim(($r->room->number ?? '').' '.($r->room->name ?? '')),
                (string) preg_replace('/2$/', '²', $areas->written($r->netAreaMm2 / 1e6)),
            ],
            $derived->regions,
        ), $walls, array_map(static fn (InkText $t): array => $t->room(), [...$figures, ...$more->texts]));

        // What stands in rooms lies under what is cut.
        return $more->with(new SheetInk($plan->areas, [...$plan->lines, ...$chainLines], [...$figures, ...$stamps]));
    }

    /**
     * @param list<Ring> $cutOuts of openings
     *
     * @return list<Ring> rings round what is cut, mm of paper
     */
    private function walls(DerivedStorey $derived, array $cutOuts): array
    {
        $bodies = [];
        foreach ($derived->walls as $shape) {
            array_push($bodies, ...self::bodies($shape));
        }
        $cut = [];
        $left = [] === $bodies ? [] : Overlay::difference($bodies, array_map(self::counterClockwise(...), $cutOuts));
        foreach ($left as ['outer' => $outer, 'holes' => $holes]) {
            $rings = array_map(fn (array $ring): array => array_map($this->paper->of(...), $ring), [$outer, ...$holes]);
            $this->areas[] = new InkArea($rings, self::CUT_GREY);
            foreach ($rings as $ring) {
                $this->lines[] = new InkLine($ring, InkLine::WIDE, closed: true);
            }
            $cut[] = $rings[0];
        }

        return $cut;
    }

    /** @return list<Ring> counter-clockwise */
    private static function bodies(WallShape $shape): array
    {
        $bodies = [];
        foreach ($shape->stretches as ['from' => $from, 'right' => $right, 'to' => $to, 'left' => $left]) {
            $ring = [$from, ...$right, $to, ...$left];
            if (abs(Polygon::area($ring)) > 1.0) {
                $bodies[] = self::counterClockwise($ring);
            }
        }

        return $bodies;
    }

    /**
     * @param Ring $ring
     *
     * @return Ring
     */
    private static function counterClockwise(array $ring): array
    {
        return Polygon::area($ring) < 0.0 ? array_reverse($ring) : $ring;
    }

    /** @param Ring $piece near right, far right, far left, near left */
    private function opening(Opening $opening, array $piece): void
    {
        if (4 !== \count($piece)) {
            return; // in a wall that is curved its jambs are drawn with the wall alone
        }
        [$nearRight, $farRight, $farLeft, $nearLeft] = $piece;
        if (OpeningKind::Window === $opening->kind) {
            foreach ([[$nearRight, $farRight], [$nearLeft, $farLeft]] as [$a, $b]) {
                $this->draw([$a, $b], InkLine::NARROW);
            }
            $this->draw([self::middle($nearRight, $nearLeft), self::middle($farRight, $farLeft)], InkLine::NARROW);
        }
        if (OpeningKind::Door !== $opening->kind) {
            return;
        }
        $swingsLeft = 'left' === $opening->swing;
        [$near, $far] = $swingsLeft ? [$nearLeft, $farLeft] : [$nearRight, $farRight];
        if ('sliding' === $opening->leaf) {
            // Beside the wall, slid along it by its own width.
            $this->draw([$near, self::part($near, $far, -1.0)], InkLine::MEDIUM);

            return;
        }
        $turn = $swingsLeft ? 1.0 : -1.0;
        $leaves = 'double' === $opening->leaf
            ? [[$near, self::middle($near, $far), $turn], [$far, self::middle($near, $far), -$turn]]
            : ['left' === $opening->hand ? [$near, $far, $turn] : [$far, $near, -$turn]];
        foreach ($leaves as [$hinge, $latch, $way]) {
            $swing = [];
            for ($k = 0; $k <= self::SWING; ++$k) {
                $angle = $way * \M_PI_2 * $k / self::SWING;
                [$dx, $dy] = [$latch[0] - $hinge[0], $latch[1] - $hinge[1]];
                $swing[] = [$hinge[0] + $dx * cos($angle) - $dy * sin($angle), $hinge[1] + $dx * sin($angle) + $dy * cos($angle)];
            }
            $this->draw($swing, InkLine::FINE);
            $this->draw([$hinge, $swing[self::SWING]], InkLine::MEDIUM);
        }
    }

    /** @param list<array{float, float}> $points mm of the plan */
    private function draw(array $points, float $width): void
    {
        $this->lines[] = new InkLine(array_map($this->paper->of(...), $points), $width);
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     *
     * @return array{float, float}
     */
    private static function middle(array $a, array $b): array
    {
        return self::part($a, $b, 0.5);
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     *
     * @return array{float, float}
     */
    private static function part(array $a, array $b, float $part): array
    {
        return [$a[0] + $part * ($b[0] - $a[0]), $a[1] + $part * ($b[1] - $a[1])];
    }
}
