<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Sheets;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Drafting\DrawnDimension;
use Plinth\Core\Geometry\Clip;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Projection\DrawnView;
use Plinth\Core\Projection\Projection;
use Plinth\Core\Projection\View;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkPicture;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\Shows;
use Plinth\Core\Sheets\Model\ViewKind;
use Plinth\Core\Sheets\Model\ViewMark;
use Plinth\Core\Sheets\PlanBeside;
use Plinth\Core\Sheets\PlanOnPaper;
use Plinth\Core\Sheets\SideSheet;
use Plinth\Core\Tests\Projection\Buildings;

/** Sides and sections on a sheet: levels and heights of the building itself, told once each and beside each other. */
final class SideSheetTest extends TestCase
{
    /** @return array{DrawnView, array<string, array{float, string}>} */
    private static function seen(int $seed): array
    {
        $plan = Buildings::of($seed);
        $at = [new Point(-5000.0, 3000.0), new Point(15_000.0, 3000.0)];
        $view = 0 === $seed % 2 ? View::section($at) : View::side(new Point(-5000.0, -9000.0), new Point(15_000.0, -9000.0));
        $levels = [];
        foreach ($plan->storeys as $storey) {
            $levels[$storey->id] = [$storey->elevation, $storey->name];
        }

        return [Projection::of(BuildingBodies::of($plan), $view), $levels];
    }

    public function testHeightsAddUpLevelsAreTheBuildingsOwnAndNoFiguresLieOnEachOther(): void
    {
        [$levelsTold, $chains] = [0, 0];
        for ($seed = 1; $seed <= 60; ++$seed) {
            [$drawn, $levels] = self::seen($seed);
            if (null === $drawn->bounds()) {
                continue;
            }
            $ink = SideSheet::of($drawn, $levels, new PlanOnPaper([50.0, 100.0][$seed % 2], 200.0, 200.0));
            $sum = ['heights' => 0, 'overall' => 0];
            foreach ($ink->texts as $text) {
                foreach (array_keys($sum) as $chain) {
                    $sum[$chain] += str_starts_with($text->key, "left.$chain") ? (int) $text->words : 0;
                }
                if (1 === preg_match('/^([±+−])(\d+\.\d{3})( |$)/u', $text->words, $found)) {
                    ++$levelsTold;
                    $mm = ('−' === $found[1] ? -1.0 : 1.0) * (float) $found[2] * 1000.0;
                    $ends = array_merge(...array_map(static fn ($l): array => [$l->from[1], $l->to[1]], $drawn->lines), ...[array_column(array_values($levels), 0)]);
                    $near = array_filter($ends, static fn (float $v): bool => abs($v - $mm) < 0.51);
                    self::assertNotSame([], $near, "seed $seed: $text->words is a height of the building");
                }
            }
            if ($sum['heights'] > 0) {
                ++$chains;
                self::assertSame($sum['overall'], $sum['heights'], "seed $seed");
            }
            foreach ($ink->texts as $i => $text) {
                foreach (\array_slice($ink->texts, $i + 1) as $other) {
                    $common = Clip::area(self::round($other->room()), self::round($text->room()));
                    self::assertLessThan(1e-6, abs($common), "seed $seed: $text->words on $other->words");
                }
            }
        }
        self::assertGreaterThan(100, $levelsTold);
        self::assertGreaterThan(20, $chains);
    }

    /**
     * @param non-empty-list<array{float, float}> $ring
     *
     * @return non-empty-list<array{float, float}> counter-clockwise
     */
    private static function round(array $ring): array
    {
        return Polygon::area($ring) < 0.0 ? array_reverse($ring) : $ring;
    }

    public function testWhatWasDrawnAndItsPictureAreThereWhereTheyAreWanted(): void
    {
        [$drawn, $levels] = self::seen(5);
        $beside = new PlanBeside(
            dimensions: [new DrawnDimension(new Point(0.0, 0.0), new Point(0.0, 2345.0), null, 500.0)],
            notes: [[[1000.0, 1000.0], 'render, two coats', [2000.0, 1500.0]]],
            picture: new InkPicture('bytes', 'image/jpeg', [0.0, 5000.0], [10_000.0, 0.0], [0.0, -5000.0]),
        );
        $with = static fn (Shows ...$shows): array => array_map(
            static fn (InkText $t): string => $t->words,
            SideSheet::of($drawn, $levels, new PlanOnPaper(100.0, 100.0, 200.0), beside: $beside, view: new SheetView('v', ViewKind::Side, 's', 0.0, 0.0, shows: array_values($shows)))->texts,
        );
        self::assertSame([], $with());
        self::assertSame(['2345'], $with(Shows::Drawn));
        self::assertSame(['render, two coats'], $with(Shows::Notes));
        $under = SideSheet::of($drawn, $levels, new PlanOnPaper(100.0, 100.0, 200.0), beside: $beside, view: new SheetView('v', ViewKind::Side, 's', 0.0, 0.0, shows: [Shows::Ink]));
        self::assertEqualsWithDelta([100.0, 150.0, 100.0, 50.0], [...$under->pictures[0]->origin, $under->pictures[0]->right[0], $under->pictures[0]->down[1]], 1e-9);
    }

    public function testAHeightIsLeftOutAndItsChainMovedLikeAPlansOwn(): void
    {
        [$drawn, $levels] = self::seen(5);
        $paper = new PlanOnPaper(100.0, 100.0, 200.0);
        $figures = static function (ViewMark ...$marks) use ($drawn, $levels, $paper): array {
            $view = new SheetView('v', ViewKind::Side, 's', 0.0, 0.0, shows: [Shows::Dimensions], marks: array_values($marks));
            $keyed = array_filter(SideSheet::of($drawn, $levels, $paper, view: $view)->texts, static fn (InkText $t): bool => '' !== $t->key);

            return array_combine(array_map(static fn (InkText $t): string => $t->key, $keyed), $keyed);
        };
        $natural = $figures();
        $one = array_key_first($natural);
        self::assertIsString($one);
        self::assertArrayNotHasKey($one, $figures(new ViewMark($one, hidden: true)));
        $overall = array_values(array_filter(array_keys($natural), static fn (string $k): bool => str_starts_with($k, 'left.overall')))[0];
        $moved = $figures(new ViewMark('left.overall', -15.0, 3.0));
        self::assertEqualsWithDelta($natural[$overall]->x - 15.0, $moved[$overall]->x, 1e-9);
        self::assertEqualsWithDelta($natural[$overall]->y, $moved[$overall]->y, 1e-9);
    }

    public function testTheGroundRunsOnBesideAllThatIsSeenAndIsLeftOutOfWhatIsSeenFromAbove(): void
    {
        [$drawn, $levels] = self::seen(7);
        $bounds = $drawn->bounds();
        self::assertNotNull($bounds);
        $broad = static fn (?float $ground): array => array_values(array_filter(
            SideSheet::of($drawn, $levels, new PlanOnPaper(100.0, 0.0, 0.0), ground: $ground)->lines,
            static fn (InkLine $l): bool => InkLine::BROAD === $l->width,
        ));
        self::assertSame([], $broad(null));
        $line = $broad(0.0)[0];
        self::assertLessThan($bounds[0] / 100.0, $line->points[0][0]);
        self::assertGreaterThan($bounds[2] / 100.0, $line->points[1][0]);
        self::assertEqualsWithDelta(0.0, $line->points[0][1], 1e-9);
    }
}
