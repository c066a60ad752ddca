<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Projection;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Projection\CutFace;
use Plinth\Core\Projection\DrawnView;
use Plinth\Core\Projection\LineRole;
use Plinth\Core\Projection\Street;
use Plinth\Core\Projection\ViewLine;

/** Sides stand in a row, joined at shared corners and at one zero, and nothing of them goes beyond its stretch. */
final class StreetTest extends TestCase
{
    /**
     * @param array{float, float} $from
     * @param array{float, float} $to
     */
    private static function line(array $from, array $to): ViewLine
    {
        return new ViewLine($from, $to, LineRole::Visible, BodyKind::Wall, 'w', 's');
    }

    public function testStretchesFollowEachOtherAndOneIsLifted(): void
    {
        $gable = new DrawnView([
            self::line([-500.0, 2000.0], [4000.0, 6500.0]),
            self::line([4000.0, 6500.0], [8500.0, 2000.0]),
            self::line([0.0, 0.0], [0.0, 2500.0]),
            self::line([9000.0, 0.0], [9000.0, 100.0]),
        ], []);
        $shed = new DrawnView([self::line([1000.0, 0.0], [7000.0, 3000.0])], []);
        $street = Street::of([[$gable, 0.0, 8000.0, 0.0], [$shed, 1000.0, 4000.0, 600.0], [$gable, 0.0, 8000.0, -100.0]]);
        self::assertCount(3 + 1 + 3, $street->lines, 'What lies beyond its stretch is none of it.');
        self::assertEqualsWithDelta([0.0, 2500.0, 4000.0, 6500.0], [...$street->lines[0]->from, ...$street->lines[0]->to], 1e-9);
        self::assertEqualsWithDelta([4000.0, 6500.0, 8000.0, 2500.0], [...$street->lines[1]->from, ...$street->lines[1]->to], 1e-9);
        self::assertEqualsWithDelta([8000.0, 600.0, 11_000.0, 2100.0], [...$street->lines[3]->from, ...$street->lines[3]->to], 1e-9);
        self::assertEqualsWithDelta([11_000.0, 2400.0], $street->lines[4]->from, 1e-9);
    }

    public function testWhatIsCutKeepsItsHoles(): void
    {
        $ring = [[0.0, 0.0], [6000.0, 0.0], [6000.0, 3000.0], [0.0, 3000.0]];
        $hole = [[1000.0, 1000.0], [1000.0, 2000.0], [2000.0, 2000.0], [2000.0, 1000.0]];
        $cut = new DrawnView([], [new CutFace($ring, [$hole], BodyKind::Wall, 'w', 's')]);
        foreach ([[500.0, 4000.0, 1e6], [1500.0, 4000.0, 0.5e6]] as [$from, $to, $open]) {
            $part = $cut->between($from, $to);
            $area = array_sum(array_map(
                static fn (CutFace $f): float => Polygon::area($f->outer) + array_sum(array_map(Polygon::area(...), $f->holes)),
                $part->faces,
            ));
            self::assertEqualsWithDelta(($to - $from) * 3000.0 - $open, $area, 0.1);
        }
        self::assertSame([], $cut->between(7000.0, 9000.0)->faces);
    }
}
