<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Geometry;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Arc;
use Plinth\Core\Geometry\Motion;
use Plinth\Core\Geometry\Point;

/** What is shifted, turned and mirrored stays as it is. */
final class MotionTest extends TestCase
{
    public function testQuarterTurnsAreExact(): void
    {
        $turned = Motion::turn(new Point(1000, 500), 270.0)->of(new Point(1300.1, 500));
        self::assertSame(1000.0, $turned->x);
        self::assertEqualsWithDelta(199.9, $turned->y, 1e-9);
        $back = Motion::turn(new Point(1000, 500), -90.0)->of(new Point(1300.1, 500));
        self::assertSame($turned->toArray(), $back->toArray());
    }

    public function testOverAnUprightLineLeftBecomesRight(): void
    {
        $mirror = Motion::mirror(new Point(2000, -70), new Point(2000, 30));
        self::assertSame([3500.0, 12.5], $mirror->of(new Point(500, 12.5))->toArray());
        self::assertSame(-40.0, $mirror->rise(40.0));
        self::assertEqualsWithDelta(180.0, abs($mirror->direction(0.0)), 1e-12);
        self::assertEqualsWithDelta(90.0, $mirror->direction(90.0), 1e-12);
    }

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, 20) as $seed) {
            yield "seed $seed" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function testLengthsStayAndMirrorsUndoThemselves(int $seed): void
    {
        mt_srand($seed);
        $any = static fn (): Point => new Point(mt_rand(-9_000_000, 9_000_000) / 1e3, mt_rand(-9_000_000, 9_000_000) / 1e3);
        [$p, $q, $on, $other] = [$any(), $any(), $any(), $any()];
        $degrees = mt_rand(-7200, 7200) / 10.0;
        $mirror = Motion::mirror($on, $other);
        $motions = [Motion::shift($p->x, $q->y), Motion::turn($on, $degrees), $mirror, $mirror->after(Motion::turn($on, $degrees))];
        foreach ($motions as $motion) {
            [$a, $b] = [$motion->of($p), $motion->of($q)];
            self::assertEqualsWithDelta($p->distanceTo($q), $a->distanceTo($b), 1e-8);
            // An arc's middle goes where the arc that was moved has its own.
            $arc = new Arc($p, $q, 700.0);
            $moved = new Arc($a, $b, $motion->rise(700.0));
            self::assertEqualsWithDelta(0.0, $moved->at(0.5)->distanceTo($motion->of($arc->at(0.5))), 1e-6);
            $way = deg2rad($motion->direction(rad2deg(atan2($q->y - $p->y, $q->x - $p->x))));
            self::assertEqualsWithDelta(0.0, sin($way - atan2($b->y - $a->y, $b->x - $a->x)), 1e-9);
        }
        self::assertEqualsWithDelta(0.0, $p->distanceTo($mirror->after($mirror)->of($p)), 1e-7);
        self::assertFalse($mirror->after($mirror)->turnsOver);
    }
}
