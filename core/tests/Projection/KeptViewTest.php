<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Projection;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Bodies\Mesh;
use Plinth\Core\Bodies\Placement;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Projection\CutFace;
use Plinth\Core\Projection\DrawnView;
use Plinth\Core\Projection\KeptView;
use Plinth\Core\Projection\Projection;
use Plinth\Core\Projection\View;
use Plinth\Core\Projection\ViewLine;

/** After an edit a view is what drawing all of it gives, and only what the edit touches was drawn again. */
final class KeptViewTest extends TestCase
{
    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        for ($seed = 1; $seed <= 40; ++$seed) {
            yield "building $seed" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function testEditsOneAfterAnotherGiveWhatDrawingAllOfItGives(int $seed): void
    {
        $plan = Buildings::of($seed);
        mt_srand(7 * $seed);
        $turn = \M_PI_2 * mt_rand(0, 3) + (0 === $seed % 3 ? 0.4 : 0.0);
        $at = static fn (float $along, float $behind): Point => new Point(
            4000.0 + $along * cos($turn) - $behind * sin($turn),
            3000.0 + $along * sin($turn) + $behind * cos($turn),
        );
        $isSection = 0 === $seed % 2;
        $ends = [$at(-10_000.0, $isSection ? 0.37 : -30_000.0), $at(10_000.0, $isSection ? 0.37 : -30_000.0)];
        $view = $isSection ? View::section($ends) : View::side(...$ends);
        $kept = KeptView::of(BuildingBodies::of($plan), $view);
        for ($edit = 0; $edit < 4; ++$edit) {
            $plan = self::edited($plan);
            $bodies = BuildingBodies::of($plan);
            $kept = $kept->again($bodies, $view);
            $whole = Projection::of($bodies, $view);
            self::assertSameLines($whole, $kept->drawn);
            self::assertSameLines($kept->drawn, $whole);
            $told = static fn (CutFace $f): string => "$f->storey $f->body ".implode(' ', array_map(
                static fn (array $p): string => \sprintf('%.3f,%.3f', ...$p),
                $f->outer,
            ));
            [$one, $other] = [array_map($told, $whole->faces), array_map($told, $kept->drawn->faces)];
            sort($one);
            sort($other);
            self::assertSame($one, $other);
        }
        self::assertSame(0, $kept->again(BuildingBodies::of($plan), $view)->redone, 'Nothing has changed.');
    }

    public function testFarFromAnEditNothingIsDrawnAgain(): void
    {
        /** @var array<int, Wall> $walls */
        $walls = [];
        for ($k = 0; $k < 30; ++$k) {
            $walls[] = new Wall("w$k", new Point(2000.0 * $k, 0.0), new Point(2000.0 * $k + 1500.0, 0.0), 200.0);
        }
        $view = View::side(new Point(-1000.0, -5000.0), new Point(70_000.0, -5000.0));
        $kept = KeptView::of(self::standing($walls), $view);
        self::assertSame(30, $kept->redone);
        $walls[12] = new Wall('w12', new Point(24_000.0, 0.0), new Point(25_500.0, 0.0), 300.0);
        $again = $kept->again(self::standing($walls), $view);
        self::assertSame(1, $again->redone);
        unset($walls[12]);
        $without = $again->again(self::standing($walls), $view);
        self::assertSame(0, $without->redone);
        self::assertCount(\count($again->drawn->lines) - 4, $without->drawn->lines);
    }

    public function testTheSameCornersJoinedOtherwiseAreDrawnAgain(): void
    {
        // A sheet of four corners that lie in no plane, folded along one diagonal, along the other, and round there.
        $corners = [[0.0, 0.0, 0.0], [1000.0, 0.0, 0.0], [1000.0, 300.0, 1000.0], [0.0, 0.0, 1000.0]];
        $sheet = static fn (Mesh $form): array => [new Body(BodyKind::Wall, 'w', 's', $form, new Placement(500.0, 0.0, 0.0, 1.0, 0.0))];
        $view = View::side(new Point(-1000.0, -5000.0), new Point(3000.0, -5000.0));
        $told = static function (DrawnView $v): array {
            $lines = array_map(static fn (ViewLine $l): string => vsprintf('%d %d %d %d', [...$l->from, ...$l->to]), $v->lines);
            sort($lines);

            return $lines;
        };
        $folds = [[[0, 1, 2]], [[0, 2, 3]]];
        $kept = KeptView::of($sheet(new Mesh($corners, $folds)), $view);
        foreach ([new Mesh($corners, [[[0, 1, 3]], [[1, 2, 3]]]), new Mesh($corners, $folds), new Mesh($corners, $folds, [[0, 2]])] as $form) {
            $bodies = $sheet($form);
            $before = $kept;
            $kept = $kept->again($bodies, $view);
            self::assertSame($told(Projection::of($bodies, $view)), $told($kept->drawn));
            self::assertNotSame($told($before->drawn), $told($kept->drawn));
        }
    }

    /**
     * @param array<int, Wall> $walls
     *
     * @return list<Body>
     */
    private static function standing(array $walls): array
    {
        return BuildingBodies::of(new Plan([new Storey('s', 'S', 0.0, 2700.0, array_values($walls))]));
    }

    /** A wall made thicker, higher, moved or removed, with whatever it joins. */
    private static function edited(Plan $plan): Plan
    {
        $storeys = $plan->storeys;
        $s = mt_rand(0, \count($storeys) - 1);
        $walls = $storeys[$s]->walls;
        $w = mt_rand(0, max(0, \count($walls) - 1));
        $wall = $walls[$w] ?? null;
        $openings = $storeys[$s]->openings;
        if (null === $wall) {
            return $plan;
        }
        if (0 === mt_rand(0, 3)) {
            unset($walls[$w]);
            $openings = array_filter($openings, static fn ($o): bool => $o->wall !== $wall->id);
        } else {
            $thick = 0 === mt_rand(0, 1) ? $wall->thickness + 40.0 : $wall->thickness;
            $walls[$w] = new Wall($wall->id, $wall->from, $wall->to, $thick, $wall->line, (float) mt_rand(1800, 2600), $wall->rise, $wall->enclosing);
        }
        $storeys[$s] = $storeys[$s]->with(array_values($walls), array_values($openings));

        return new Plan(array_values($storeys), $plan->finishes, $plan->stairLimits);
    }

    /** Every place of every line of one lies on a line of the same role of the other, to a hundredth of a millimetre. */
    private static function assertSameLines(DrawnView $of, DrawnView $in): void
    {
        $missing = [];
        foreach ($of->lines as $line) {
            foreach ([0.03, 0.5, 0.97] as $part) {
                $u = $line->from[0] + $part * ($line->to[0] - $line->from[0]);
                $v = $line->from[1] + $part * ($line->to[1] - $line->from[1]);
                $isThere = false;
                foreach ($in->lines as $other) {
                    $long = $other->length();
                    $t = (($u - $other->from[0]) * ($other->to[0] - $other->from[0]) + ($v - $other->from[1]) * ($other->to[1] - $other->from[1])) / $long ** 2;
                    $t = max(0.0, min(1.0, $t));
                    $off = hypot($other->from[0] + $t * ($other->to[0] - $other->from[0]) - $u, $other->from[1] + $t * ($other->to[1] - $other->from[1]) - $v);
                    if ($off < 0.01 && $other->role === $line->role) {
                        $isThere = true;
                        break;
                    }
                }
                if (!$isThere) {
                    $missing[] = \sprintf('%s %s at %.2f %.2f', $line->role->value, $line->body, $u, $v);
                }
            }
        }
        self::assertSame([], $missing);
    }
}
