<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Bodies;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Roof\RoofFacet;
use Plinth\Core\Roof\RoofLine;
use Plinth\Core\Roof\RoofLineKind;
use Plinth\Core\Tests\Outside;

/** The demo's lodge stands as its figures say: every value here is arithmetic on them. */
final class LodgeTest extends TestCase
{
    /**
     * What the upper floor leaves open over the stair: 2.55 m under it there are 2 m of headroom up to 550 mm, which three risers of 175
     * stay under. Four treads of the lower flight, the half landing and seven treads of the upper flight are open.
     */
    private const OPEN_M2 = 4 * 0.25 * 0.95 + 0.95 * (0.98 + 0.95) + 7 * 0.25 * 0.95;

    public function testItsBodiesAreAsLargeAsItsFiguresSay(): void
    {
        $plan = PlanReader::read((string) file_get_contents(__DIR__.'/../../../demo/reedmace-lodge.json'));
        $building = new BuildingBodies($plan);
        $bodies = array_merge($building->storey('ground')->all(), $building->storey('upper')->all());
        self::assertSame([], [...$building->storey('ground')->refused(), ...$building->storey('upper')->refused()]);
        self::assertSame([], Derivation::of($plan->storeys[0])->findings);
        self::assertSame([], Derivation::of($plan->storeys[1])->findings);
        $volume = static fn (BodyKind $kind): float => array_sum(array_map(
            static fn (Body $b): float => $b->kind === $kind ? $b->mesh()->volume() / 1e9 : 0.0,
            $bodies,
        ));
        $all = 11.0 * 7.6;
        self::assertEqualsWithDelta(0.19 * $all + 0.15 * 2.5 * 1.8 + 0.25 * ($all - self::OPEN_M2 - 0.36), $volume(BodyKind::Floor), 1e-9);
        // Between the walls; the chimney stands upon it.
        $rooms = 4.23 * 3.25 + 4.23 * 3.65 + 6.03 * 3.83 + 6.03 * 3.03;
        self::assertEqualsWithDelta(0.06 * $rooms, $volume(BodyKind::Finish), 1e-9);
        self::assertEqualsWithDelta(0.025 * (4.23 * 7.0 - 0.36 + 6.03 * 3.83 + 6.03 * 3.03 - self::OPEN_M2), $volume(BodyKind::Ceiling), 1e-9);
        self::assertEqualsWithDelta(0.36 * 9.3, $volume(BodyKind::Chimney), 1e-9);
        // Up to the underside of the porch's roof, from the porch's floor.
        self::assertEqualsWithDelta(2 * 0.04 * 2.52, $volume(BodyKind::Column), 1e-9);
        $roof = $building->storey('upper')->roofOver($plan->storeys[1]->roofs[0]);
        self::assertNotNull($roof);
        // 11.8 × 8.6 m with its overhangs, 40° but for the gable: the hip ends half its width in.
        $slopes = array_filter($roof->facets, static fn (RoofFacet $f): bool => $f->isSlope);
        self::assertEqualsWithDelta(
            11.8 * 8.6 / cos(deg2rad(40.0)),
            array_sum(array_map(static fn (RoofFacet $f): float => $f->area() / 1e6, $slopes)),
            1e-9,
        );
        $ridges = array_values(array_filter($roof->lines, static fn (RoofLine $l): bool => RoofLineKind::Ridge === $l->kind));
        self::assertEqualsWithDelta([7500.0], array_map(static fn (RoofLine $l): float => $l->length(), $ridges), 1e-6);
    }

    public function testItsFinishesAreAsLargeAsItsFiguresSay(): void
    {
        $plan = PlanReader::read((string) file_get_contents(__DIR__.'/../../../demo/reedmace-lodge.json'));
        $areas = [];
        foreach ((new BuildingBodies($plan))->quantities() as $q) {
            if ('finish' === $q->of) {
                $areas[$q->name][$q->where] = $q->areaM2;
            }
        }
        // The chimney stands in the kitchen and goes through the bunks; the stair goes through the landing.
        self::assertEqualsWithDelta([
            'Quarry tiles' => ['1 Boot room, floor' => 4.23 * 3.25, '2 Kitchen, floor' => 4.23 * 3.65 - 0.36],
            'Oak boards' => [
                '3 Hall, floor' => 6.03 * 3.83, '4 Stair, floor' => 6.03 * 3.03, '11 Bunks, floor' => 4.23 * 7.0 - 0.36,
                '12 Reading room, floor' => 6.03 * 3.83, '13 Landing, floor' => 6.03 * 3.03 - self::OPEN_M2,
            ],
            // 0.6 m high all round, less a window of 1.5 m and doors of 0.9 and 0.8 m.
            'Glazed tiles' => ['2 Kitchen, walls' => 0.6 * (2 * (4.23 + 3.65) - 1.5 - 0.9 - 0.8)],
        ], array_diff_key($areas, ['Larch boards' => 0]), 1e-6);
        // Up to the roof's underside, 2.5 m over the outer faces; two windows of 1.2 × 1.1 m in the longer ones.
        self::assertEqualsWithDelta(11.0 * 2.5 - 2 * 1.2 * 1.1, $areas['Larch boards']["wall of 10700\u{202F}mm, right face"] ?? null, 1e-6);
    }

    /** manifold-3d 3 (npm). */
    public function testNothingInItSharesAnything(): void
    {
        $bodies = BuildingBodies::of(PlanReader::read((string) file_get_contents(__DIR__.'/../../../demo/reedmace-lodge.json')));
        $answer = Outside::ask('solids.mjs', ['bodies' => array_map(
            static fn (Body $b): array => ['vertices' => $b->mesh()->vertices, 'triangles' => $b->mesh()->triangles()],
            $bodies,
        )]);
        self::assertIsArray($answer['common']);
        foreach ($answer['common'] as $pair) {
            self::assertIsArray($pair);
            self::assertLessThan(1e-6, $pair[2]);
        }
    }
}
