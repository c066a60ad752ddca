<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Projection;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Slab;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Projection\CutFace;
use Plinth\Core\Projection\DrawnView;
use Plinth\Core\Projection\Exception\UndrawableView;
use Plinth\Core\Projection\LineRole;
use Plinth\Core\Projection\Projection;
use Plinth\Core\Projection\View;
use Plinth\Core\Projection\ViewLine;
use Plinth\Core\Tests\Bodies\House;

/** What sides and sections show, by arithmetic on small buildings. */
final class ViewTest extends TestCase
{
    /** Four walls of 4 × 3 m, 2.5 m high: from the south one sees a rectangle of that, whatever joints there are between them. */
    public function testASideOfABoxIsItsOutline(): void
    {
        $view = Projection::of(self::box(), View::side(new Point(0.0, -1000.0), new Point(1.0, -1000.0)));
        self::assertSame([0.0, 0.0, 4000.0, 2500.0], array_map(static fn (float $mm): float => round($mm, 6), $view->bounds() ?? []));
        self::assertEqualsWithDelta([2500.0, 2500.0, 4000.0, 4000.0], self::lengths($view, LineRole::Visible), 1e-6);
        self::assertSame([], $view->faces);
        // From its corner: two faces, and the corner between them.
        $view = Projection::of(self::box(), View::side(new Point(0.0, -1000.0), new Point(1000.0, -2000.0)));
        self::assertCount(3 + 2 * 2, $view->lines);
    }

    public function testItIsTheSameOnANationalGridAndFromBothEndsOfTheLineMirrored(): void
    {
        $near = Projection::of(self::box(), View::side(new Point(0.0, -1000.0), new Point(3.0, -1001.0)));
        $far = Projection::of(self::box(650e6, 650e6), View::side(new Point(650e6, 650e6 - 1000.0), new Point(650e6 + 3.0, 650e6 - 1001.0)));
        self::assertEqualsWithDelta(self::lengths($near, LineRole::Visible), self::lengths($far, LineRole::Visible), 1e-3);
    }

    /** Across the box 1 m behind its south face: two walls of 200 mm are cut, and the far wall's inner face is seen between them. */
    public function testASectionFillsWhatItCutsAndShowsWhatLiesBehind(): void
    {
        $view = Projection::of(self::box(), View::section([new Point(0.0, 1000.0), new Point(1.0, 1000.0)]));
        self::assertEqualsWithDelta(2 * 200.0 * 2500.0, self::area($view), 1e-3);
        self::assertEqualsWithDelta([200.0, 200.0, 200.0, 200.0, 2500.0, 2500.0, 2500.0, 2500.0], self::lengths($view, LineRole::Cut), 1e-6);
        self::assertEqualsWithDelta([3600.0, 3600.0], self::lengths($view, LineRole::Visible), 1e-6, 'The far wall, over and under.');
        // Not so deep that it reaches there.
        $view = Projection::of(self::box(), View::section([new Point(0.0, 1000.0), new Point(1.0, 1000.0)], 500.0));
        self::assertSame([], self::lengths($view, LineRole::Visible));
    }

    /** With a jog in the room the cut goes on behind it: the left wall is cut in front, the right one further back. */
    public function testACuttingLineHasJogs(): void
    {
        $line = [new Point(-500.0, 1000.0), new Point(2000.0, 1000.0), new Point(2000.0, 2900.0), new Point(5000.0, 2900.0)];
        $view = Projection::of(self::box(), View::section($line));
        // Behind the jog all of the north wall is cut along its length.
        self::assertEqualsWithDelta(200.0 * 2500.0 + 2000.0 * 2500.0, self::area($view), 1e-3);
        $last = array_map(static fn (CutFace $f): float => max(array_column($f->outer, 0)), $view->faces);
        self::assertEqualsWithDelta(4500.0, max([0.0, ...$last]), 1e-6, 'u begins where the line does.');
    }

    /** Areas that are cut, added up from end to end, are the volume of what stands. */
    public function testSectionsAddUpToTheVolume(): void
    {
        $bodies = BuildingBodies::of((new House())->plan());
        $volume = array_sum(array_map(static fn (Body $b): float => $b->form->volume(), $bodies));
        $added = 0.0;
        for ($y = -475.0; $y < 6700.0; $y += 50.0) {
            $added += 50.0 * self::area(Projection::of($bodies, View::section([new Point(0.0, $y), new Point(1.0, $y)], 1.0)));
        }
        self::assertEqualsWithDelta($volume, $added, 0.01 * $volume);
    }

    public function testWhatIsHiddenIsDrawnWhereItIsWantedAndNothingTwice(): void
    {
        $view = Projection::of(BuildingBodies::of((new House())->plan()), View::side(new Point(0.0, -1000.0), new Point(1.0, -1000.0)), true);
        self::assertNotSame([], self::lengths($view, LineRole::Hidden));
        $plain = Projection::of(BuildingBodies::of((new House())->plan()), View::side(new Point(0.0, -1000.0), new Point(1.0, -1000.0)));
        self::assertEqualsWithDelta(self::lengths($plain, LineRole::Visible), self::lengths($view, LineRole::Visible), 1e-6);
        $level = [];
        foreach ($view->lines as $line) {
            if (abs($line->from[1] - $line->to[1]) < 1e-6) {
                $level[(string) round($line->from[1], 3)][] = [min($line->from[0], $line->to[0]), max($line->from[0], $line->to[0])];
            }
        }
        foreach ($level as $height => $spans) {
            sort($spans);
            foreach (\array_slice($spans, 1) as $i => $span) {
                self::assertGreaterThan($spans[$i][1] - 0.01, $span[0], "At $height one line lies on another.");
            }
        }
    }

    /** Every edge at which a body turns is drawn, as seen or as hidden: of a stair with rails, and of all that stands in a room by itself. */
    public function testWithWhatIsHiddenNoEdgeIsMissing(): void
    {
        $all = BuildingBodies::of((new House())->plan());
        foreach ([BodyKind::Stair, BodyKind::Object, BodyKind::Chimney] as $kind) {
            foreach (array_values(array_filter($all, static fn (Body $b): bool => $kind === $b->kind)) as $body) {
                $look = View::side(new Point(0.0, -1000.0), new Point(7.0, -1003.0));
                $view = Projection::of([$body], $look, true);
                foreach (self::creases($body) as [$p, $q]) {
                    [$a, $b] = [$look->place($p), $look->place($q)];
                    [$u, $v] = [($a[0] + $b[0]) / 2.0, ($a[1] + $b[1]) / 2.0];
                    $off = min([\INF, ...array_map(static fn (ViewLine $l): float => self::off($l, $u, $v), $view->lines)]);
                    self::assertLessThan(0.1, $off, \sprintf('%s %s at %.1f %.1f', $kind->value, $body->id, $u, $v));
                }
            }
        }
    }

    /** A window in the far wall is hidden from the front: its outer edges stand there as dashes. */
    public function testAWindowOnTheFarSideIsHidden(): void
    {
        $window = new Opening('w', 'w2', OpeningKind::Opening, 1000.0, 800.0, 900.0, 1200.0);
        $bodies = BuildingBodies::of(new Plan([new Storey('g', 'Ground', 0.0, 2500.0, self::walls(0.0, 0.0), [$window])]));
        $view = Projection::of($bodies, View::side(new Point(0.0, -1000.0), new Point(1.0, -1000.0)), true);
        $hidden = array_filter($view->lines, static fn (ViewLine $l): bool => LineRole::Hidden === $l->role);
        // From 3900 to the left: 2100 to 2900 along the side.
        foreach ([[2100.0, 1500.0], [2900.0, 1500.0], [2500.0, 900.0], [2500.0, 2100.0]] as [$u, $v]) {
            self::assertLessThan(0.01, min([\INF, ...array_map(static fn (ViewLine $l): float => self::off($l, $u, $v), array_values($hidden))]));
        }
    }

    public function testWallsOfTwoStoreysThatStandFlushHaveNoLineBetweenThemAndAFloorHas(): void
    {
        $walls = self::walls(0.0, 0.0);
        $upper = array_map(static fn (Wall $w): Wall => new Wall("u$w->id", $w->from, $w->to, $w->thickness), $walls);
        $count = static fn (Slab ...$floors): int => \count(array_filter(
            Projection::of(BuildingBodies::of(new Plan([
                new Storey('g', 'Ground', 0.0, 2500.0, $walls),
                (new Storey('u', 'Upper', 2500.0, 2500.0, $upper))->built(array_values($floors)),
            ])), View::side(new Point(0.0, -1000.0), new Point(1.0, -1000.0)))->lines,
            static fn (ViewLine $l): bool => abs($l->from[1] - 2500.0) < 300.0 && abs($l->from[1] - $l->to[1]) < 1.0,
        ));
        self::assertSame(0, $count());
        $outline = new Contour([new Point(0.0, 0.0), new Point(4000.0, 0.0), new Point(4000.0, 3000.0), new Point(0.0, 3000.0)]);
        self::assertSame(2, $count(new Slab('f', $outline, 0.0, 200.0)));
    }

    public function testWhatCannotBeDrawnIsRefusedWithItsPlace(): void
    {
        $at = static fn (float ...$p): Point => new Point($p[0] ?? 0.0, $p[1] ?? 0.0);
        foreach ([
            'view-line' => static fn (): View => View::side($at(1.0), $at(1.0)),
            'view-depth' => static fn (): View => View::side($at(), $at(10.0), 0.0),
            'view-jog' => static fn (): View => View::section([$at(), $at(10.0), $at(20.0, 5.0)]),
        ] as $why => $view) {
            try {
                $view();
                self::fail($why);
            } catch (UndrawableView $e) {
                self::assertSame($why, $e->why());
            }
        }
    }

    /** @return iterable<array{array{float, float, float}, array{float, float, float}}> edges at which a surface turns */
    private static function creases(Body $body): iterable
    {
        $mesh = $body->mesh();
        $seen = [];
        foreach ($mesh->faces as $face) {
            $n = $mesh->normal($face);
            $length = sqrt($n[0] ** 2 + $n[1] ** 2 + $n[2] ** 2);
            foreach ($face as $ring) {
                foreach ($ring as $i => $b) {
                    $a = $ring[$i > 0 ? $i - 1 : \count($ring) - 1];
                    $key = min($a, $b).','.max($a, $b);
                    $turned = isset($seen[$key]) ? ($n[0] * $seen[$key][0] + $n[1] * $seen[$key][1] + $n[2] * $seen[$key][2]) / $length : null;
                    // What turns little may be round.
                    if (null !== $turned && $turned < 0.9) {
                        yield [$mesh->vertices[$a], $mesh->vertices[$b]];
                    }
                    $seen[$key] = [$n[0] / $length, $n[1] / $length, $n[2] / $length];
                }
            }
        }
    }

    private static function off(ViewLine $line, float $u, float $v): float
    {
        [[$au, $av], [$bu, $bv]] = [$line->from, $line->to];
        $t = max(0.0, min(1.0, (($u - $au) * ($bu - $au) + ($v - $av) * ($bv - $av)) / $line->length() ** 2));

        return hypot($au + $t * ($bu - $au) - $u, $av + $t * ($bv - $av) - $v);
    }

    /** @return list<Body> */
    private static function box(float $x = 0.0, float $y = 0.0): array
    {
        return BuildingBodies::of(new Plan([new Storey('g', 'Ground', 0.0, 2500.0, self::walls($x, $y))]));
    }

    /** @return list<Wall> 4 × 3 m over their outer faces */
    private static function walls(float $x, float $y): array
    {
        $corners = [[100.0, 100.0], [3900.0, 100.0], [3900.0, 2900.0], [100.0, 2900.0]];
        $walls = [];
        foreach ($corners as $i => [$px, $py]) {
            [$qx, $qy] = $corners[($i + 1) % 4];
            $walls[] = new Wall("w$i", new Point($x + $px, $y + $py), new Point($x + $qx, $y + $qy), 200.0);
        }

        return $walls;
    }

    /** @return list<float> */
    private static function lengths(DrawnView $view, LineRole $role): array
    {
        $lengths = array_map(
            static fn (ViewLine $l): float => $l->length(),
            array_values(array_filter($view->lines, static fn (ViewLine $l): bool => $l->role === $role)),
        );
        sort($lengths);

        return $lengths;
    }

    private static function area(DrawnView $view): float
    {
        return array_sum(array_map(
            static fn (CutFace $f): float => Polygon::area($f->outer) + array_sum(array_map(Polygon::area(...), $f->holes)),
            $view->faces,
        ));
    }
}
