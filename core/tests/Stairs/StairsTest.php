<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Stairs;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Fault\Fault;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Stair;
use Plinth\Core\Plan\Model\StairLimit;
use Plinth\Core\Plan\Model\StairMeasure;
use Plinth\Core\Plan\Model\StairTurn;
use Plinth\Core\Stairs\StairFinding;
use Plinth\Core\Stairs\StairForm;
use Plinth\Core\Stairs\StairLimits;
use Plinth\Core\Stairs\Tread;

/** A stair arrives: its risers are equal, its treads lie side by side, and what does not hold is said with what would mend it. */
final class StairsTest extends TestCase
{
    /** H 2700, 15 risers, goings of 250: by arithmetic, as any handbook has it. */
    public function testAStraightFlight(): void
    {
        $form = StairForm::of((new Stairs())->of('straight'), 2700.0);
        self::assertEqualsWithDelta(
            [180.0, 250.0, 610.0, 3500.0, 35.75, 900.0],
            [$form->rise, $form->going(), $form->stride(), $form->run(), round($form->pitch(), 2), $form->width()],
            1e-9,
        );
        self::assertCount(14, $form->treads);
        self::assertSame([], StairLimits::of([])->findings($form, null));
        // 590 ≤ 2s + a ≤ 650, as DIN 18065 has it (from memory).
        self::assertTrue(590.0 <= $form->stride() && $form->stride() <= 650.0);
    }

    /** Half a circle of radius R on the walking line in 13 treads: πR / 13, for 1000 mm 241.7. */
    public function testHalfACircle(): void
    {
        $form = StairForm::of((new Stairs())->of('half circle', 14), 2700.0);
        self::assertEqualsWithDelta(\M_PI * 1000.0 / 13.0, $form->going(), 1e-9);
        self::assertSame(241.7, round($form->going(), 1));
        $area = array_sum(array_map(static fn (Tread $t): float => Polygon::area($t->ring), $form->treads));
        self::assertEqualsWithDelta(\M_PI / 2.0 * (1450.0 ** 2 - 550.0 ** 2), $area, 1e-3 * $area, 'drawn by chords');
    }

    public function testALandingTakesOneTreadAndWindersTheirNumber(): void
    {
        $quarter = StairForm::of((new Stairs())->of('quarter'), 2700.0);
        $landings = array_values(array_filter($quarter->treads, static fn (Tread $t): bool => $t->isLanding));
        self::assertCount(1, $landings);
        self::assertEqualsWithDelta(900.0 ** 2, Polygon::area($landings[0]->ring), 1e-6);
        $half = StairForm::of((new Stairs())->of('half landing'), 2700.0);
        $landings = array_values(array_filter($half->treads, static fn (Tread $t): bool => $t->isLanding));
        self::assertCount(1, $landings, 'Two corners with no room for a flight between them are one landing.');
        self::assertEqualsWithDelta(900.0 * 1900.0, Polygon::area($landings[0]->ring), 1e-6);
        $wound = StairForm::of((new Stairs())->of('winders'), 2700.0);
        $winders = array_values(array_filter($wound->treads, static fn (Tread $t): bool => !$t->isStraight));
        self::assertCount(3, $winders);
        self::assertEqualsWithDelta(900.0 ** 2, array_sum(array_map(static fn (Tread $t): float => Polygon::area($t->ring), $winders)), 1e-6);
        self::assertEqualsWithDelta(\M_PI_2 * 450.0 / 3.0, $winders[0]->going, 1e-9);
    }

    /** @return iterable<string, array{string}> */
    public static function shapes(): iterable
    {
        foreach (Stairs::SHAPES as $shape) {
            yield $shape => [$shape];
        }
    }

    /** Any height over any number of risers, any shape, anywhere: the last riser arrives, and no tread lies on another. */
    #[DataProvider('shapes')]
    public function testTheLastRiserArrivesExactlyAndNoTreadLiesOnAnother(string $shape): void
    {
        $seed = false === getenv('SEED') ? 1 : (int) getenv('SEED');
        mt_srand($seed);
        $between = static fn (float $low, float $high): float => $low + ($high - $low) * mt_rand() / mt_getrandmax();
        for ($i = 0; $i < 40; ++$i) {
            $far = 0 === $i % 4 ? 650e6 : 0.0;
            $stairs = new Stairs($far, -$far, $between(0.0, 360.0), 1 === $i % 2);
            [$risers, $height] = [mt_rand(9, 24), $between(1500.0, 4500.0)];
            $form = StairForm::of($stairs->of($shape, $risers, $between(600.0, 1000.0)), $height);
            self::assertCount($risers - 1, $form->treads, "seed $seed, $i");
            $last = $form->treads[$risers - 2];
            self::assertEqualsWithDelta($height, $form->level($last) + $form->rise, 1e-9);
            self::assertEqualsWithDelta(0.0, $form->short(), 1e-9);
            $all = 0.0;
            foreach ($form->treads as $k => $tread) {
                self::assertSame($k + 1, $tread->number);
                $all += Polygon::area($tread->ring);
                self::assertGreaterThan(1.0, Polygon::area($tread->ring), "$shape, seed $seed, $i: tread $k has no area or is turned over");
                $next = $form->treads[$k + 1] ?? $tread;
                foreach ($next === $tread ? [] : [0, 1] as $end) {
                    [$a, $b] = [$tread->above()[$end], $next->below()[$end]];
                    self::assertLessThan(0.01, hypot($a[0] - $b[0], $a[1] - $b[1]), "$shape, seed $seed, $i: a riser is one line");
                }
            }
            $covered = Overlay::area(Overlay::union(array_map(static fn (Tread $t): array => $t->ring, $form->treads)));
            self::assertEqualsWithDelta($all, $covered, 10.0 + 1e-6 * $all, "$shape, seed $seed, $i");
        }
    }

    public function testGoingsOfFlightsAreAsEqualAsWholeNumbersAllow(): void
    {
        $line = [new Point(0.0, 0.0), new Point(2950.0, 0.0), new Point(2950.0, 1950.0)];
        $form = StairForm::of(new Stair('s', $line, [], 900.0, 18), 3000.0);
        // 2500 and 1500 mm for 16 treads beside the landing: 250 each.
        self::assertEqualsWithDelta(array_fill(0, 16, 250.0), $form->goings(), 1e-9);
    }

    public function testTracedTreadsThatDoNotArriveSayByHowMuchAndWhatWouldMendIt(): void
    {
        $stair = (new Stairs())->of('free', 14);
        $short = new Stair('s', [], [], 900.0, 16, $stair->treads);
        [$finding] = StairLimits::of([])->findings(StairForm::of($short, 2880.0), null);
        self::assertSame(['stair-arrival', 14], [$finding->code, $finding->risers]);
        self::assertStringContainsString('360', $finding->message, 'Two risers of 180 mm.');
        self::assertStringContainsString('trace 2 more', $finding->message);
        $mended = new Stair('s', [], [], 900.0, $finding->risers ?? 0, $stair->treads);
        self::assertSame([], array_filter(
            StairLimits::of([])->findings(StairForm::of($mended, 2700.0), null),
            static fn (StairFinding $f): bool => 'stair-arrival' === $f->code,
        ));
        foreach (StairLimits::of([])->findings(StairForm::of($mended, 4200.0), null) as $other) {
            self::assertNull($other->risers, 'What arrives is not sent back and forth: more treads would be needed.');
        }
        $treads = $stair->treads;
        unset($treads[6]);
        $form = StairForm::of(new Stair('s', [], [], 900.0, 13, array_values($treads)), 2600.0);
        self::assertSame([6], $form->apart);
        self::assertContains('stair-apart', array_column(StairLimits::of([])->findings($form, null), 'code'));
    }

    /** A hand traces each a few millimetres over the one before: they lie side by side all the same, and still meet. */
    public function testTreadsThatWereTracedALittleOverEachOtherLieSideBySide(): void
    {
        $tread = static fn (int $k): Contour => new Contour([
            new Point(250.0 * $k - 4.0, 0.0), new Point(250.0 * ($k + 1), 0.0), new Point(250.0 * ($k + 1) + 3.0, 900.0), new Point(250.0 * $k, 902.0),
        ]);
        $form = StairForm::of(new Stair('s', [], [], 900.0, 7, array_map($tread, range(0, 5))), 1200.0);
        self::assertSame([], $form->apart);
        $rings = array_map(static fn (Tread $t): array => $t->ring, $form->treads);
        self::assertEqualsWithDelta(array_sum(array_map(Polygon::area(...), $rings)), Overlay::area(Overlay::union($rings)), 1.0);
    }

    public function testWhatLiesOutsideTheProjectsLimitsIsSaidWithWhereTheyComeFrom(): void
    {
        $codes = static fn (Stair $s, float $height, ?float $underside = null): array => array_column(
            StairLimits::of([])->findings(StairForm::of($s, $height), $underside),
            'risers',
            'code',
        );
        $straight = (new Stairs())->of('straight', 11);
        self::assertSame(['stair-rise' => 13, 'stair-stride' => null, 'stair-going' => null], $codes($straight, 2800.0));
        self::assertSame(['stair-width' => null], $codes((new Stairs())->of('straight', 15, 700.0), 2700.0));
        $steep = new Stair('s', [new Point(0.0, 0.0), new Point(14 * 220.0, 0.0)], [], 900.0, 15);
        self::assertSame(['stair-pitch' => null], $codes($steep, 15 * 200.0));
        $told = StairLimits::of([])->findings(StairForm::of($steep, 3000.0), null)[0]->message;
        self::assertStringContainsString('42.3°', $told);
        self::assertStringContainsString('Approved Document K', $told);
    }

    public function testAProjectsOwnLimitsTakeThePlaceOfThoseItHasNotSet(): void
    {
        $form = StairForm::of((new Stairs())->of('straight', 15, 900.0, ['rightRail' => true, 'railHeight' => 1050.0]), 2700.0);
        $told = static fn (StairLimit ...$own): array => array_column(StairLimits::of(array_values($own))->findings($form, null), 'message', 'code');
        self::assertSame(['stair-handrail'], array_keys($told()));
        $own = $told(
            new StairLimit(StairMeasure::Handrail, 1000.0, 1100.0, 'our office'),
            new StairLimit(StairMeasure::Width, 1000.0, null, 'the brief, page 4'),
        );
        self::assertSame(['stair-width'], array_keys($own));
        self::assertStringContainsString('(the brief, page 4)', $own['stair-width']);
    }

    public function testALimitBoundsSomethingAndItsLeastIsNotOverItsMost(): void
    {
        new StairLimit(StairMeasure::Pitch, null, 38.0, '');
        foreach ([[null, null], [300.0, 200.0], [-1.0, null], [\NAN, null]] as [$least, $most]) {
            try {
                new StairLimit(StairMeasure::Rise, $least, $most, '');
                self::fail('This is no limit.');
            } catch (UnusableValue $e) {
                self::assertStringContainsString('stair limit rise', $e->getMessage());
            }
        }
    }

    /** Under a floor whose underside is 2450 over the foot, 2000 are left up to 450: two treads of 180, and from the third it is open. */
    public function testTheFloorAboveIsOpenFromTheFirstTreadThatWouldLackHeadroom(): void
    {
        $form = StairForm::of((new Stairs())->of('straight'), 2700.0);
        $opening = $form->opening(2450.0);
        self::assertCount(1, $opening);
        self::assertEqualsWithDelta(12 * 250.0 * 900.0, Overlay::area($opening), 1.0);
        self::assertSame(500.0, Polygon::bounds($opening[0]['outer'])[0]);
        self::assertEqualsWithDelta(2450.0 - 360.0, $form->headroom(2450.0), 1e-9);
        self::assertSame([], StairForm::of((new Stairs())->of('straight', 15, 900.0, ['headroom' => 100.0]), 2000.0)->opening(2700.0));
    }

    /** @return iterable<string, array{callable(): Stair, string}> */
    public static function refused(): iterable
    {
        $stair = self::drawn(...);
        yield 'no line' => [$stair([]), 'stair-line'];
        yield 'a line of one place' => [$stair([[0, 0], [0, 0]]), 'stair-line'];
        yield 'a bend that does not go on' => [$stair([[0, 0], [1500, 0], [1500, 2000]], [0.0, 300.0]), 'stair-kink'];
        yield 'back on itself' => [$stair([[0, 0], [1500, 0], [100, 20]]), 'stair-sharp'];
        yield 'round too tight a bend' => [$stair([[0, 0], [800, 0]], [400.0]), 'stair-tight'];
        yield 'no room for a landing' => [$stair([[0, 0], [300, 0], [300, 3000]]), 'stair-short'];
        yield 'too few risers' => [$stair([[0, 0], [2450, 0], [2450, 2450]], [], 900.0, 3), 'stair-few'];
        yield 'flights on each other' => [$stair([[0, 0], [3000, 0], [3000, 1000], [1000, 1000], [1000, -2000]]), 'stair-overlap'];
        yield 'no treads at all' => [$stair([[0, 0], [1, 0]], [], 900.0, 1), 'unusable-value'];
    }

    /**
     * @param list<array{int, int}> $line
     * @param list<float> $rises
     *
     * @return \Closure(): Stair
     */
    private static function drawn(array $line, array $rises = [], float $width = 900.0, int $risers = 15): \Closure
    {
        return static fn (): Stair => new Stair(
            's',
            array_map(static fn (array $p): Point => new Point((float) $p[0], (float) $p[1]), $line),
            $rises,
            $width,
            $risers,
        );
    }

    /** @param callable(): Stair $stair */
    #[DataProvider('refused')]
    public function testWhatCannotStandIsRefusedInWords(callable $stair, string $why): void
    {
        try {
            StairForm::of($stair(), 2700.0);
            self::fail('It is no stair.');
        } catch (Fault $e) {
            self::assertSame($why, $e->why());
            self::assertMatchesRegularExpression('/^[A-Z].*[.]$|^stair/', $e->getMessage());
        }
    }

    public function testValuesOutOfReachAreRefusedByName(): void
    {
        $this->expectException(UnusableValue::class);
        new Stair('s', [], [], -1.0, 15, turn: StairTurn::Winders);
    }
}
