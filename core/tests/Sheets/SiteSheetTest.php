<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Sheets;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\Shows;
use Plinth\Core\Sheets\Model\ViewKind;
use Plinth\Core\Sheets\PlanOnPaper;
use Plinth\Core\Sheets\SheetInk;
use Plinth\Core\Sheets\SiteSheet;
use Plinth\Core\Sheets\Written;
use Plinth\Core\Site\Clearance;
use Plinth\Core\Tests\Plan\Plans;

/** A site plan tells each leg beside it and outside, how near the building comes to each, and nothing twice in one place. */
final class SiteSheetTest extends TestCase
{
    private const PAPER = [200.0, 150.0, 200.0];

    private static function drawn(Contour $boundary, bool $withDimensions = true): SheetInk
    {
        $storey = Plans::storey(Plans::rectangle());
        $view = new SheetView('v', ViewKind::Site, '', 0.0, 0.0, shows: $withDimensions ? [Shows::Dimensions] : []);

        return SiteSheet::of([$boundary], [Derivation::of($storey)], new PlanOnPaper(...self::PAPER), new Written(), $view);
    }

    /** A plot of some legs round the building, either way round. */
    private static function plot(int $seed): Contour
    {
        mt_srand($seed);
        $n = mt_rand(3, 8);
        $corners = [];
        for ($k = 0; $k < $n; ++$k) {
            $angle = 2.0 * \M_PI * ($k + mt_rand(-20, 20) / 100.0) / $n;
            $r = mt_rand(9000, 20_000);
            $corners[] = new Point(3000.0 + $r * cos($angle), 2000.0 + $r * sin($angle));
        }

        \assert([] !== $corners);

        return new Contour(0 === $seed % 2 ? $corners : array_reverse($corners));
    }

    public function testLegsAreToldOutsideTheSiteAndClearancesInsideIt(): void
    {
        [$legs, $clear] = [0, 0];
        for ($seed = 1; $seed <= 50; ++$seed) {
            $boundary = self::plot($seed);
            $ink = self::drawn($boundary);
            $ring = array_map((new PlanOnPaper(...self::PAPER))->of(...), $boundary->points());
            $lengths = array_map(
                static fn (Point $p, int $i): string => (string) (int) round($p->distanceTo($boundary->corners[($i + 1) % \count($boundary->corners)])),
                $boundary->corners,
                array_keys($boundary->corners),
            );
            $clearances = array_map(static fn (Clearance $c): string => (string) (int) round($c->mm), Clearance::of($boundary, [Derivation::of(Plans::storey(Plans::rectangle()))->outlines[0]->outer]));
            foreach ($ink->texts as $text) {
                if (!ctype_digit($text->words)) {
                    continue;
                }
                $room = $text->room();
                [$x, $y] = [array_sum(array_column($room, 0)) / 4.0, array_sum(array_column($room, 1)) / 4.0];
                $isOutside = !Polygon::contains($ring, $x, $y);
                self::assertContains($text->words, $isOutside ? $lengths : $clearances, "seed $seed");
                $isOutside ? ++$legs : ++$clear;
                self::assertTrue($text->degrees > -90.0 && $text->degrees <= 90.0 + 1e-6, 'It reads from below or from the right.');
            }
        }
        self::assertGreaterThan(150, $legs);
        self::assertGreaterThan(100, $clear);
    }

    public function testTheBuildingIsHatchedAndTheBoundaryAChainLine(): void
    {
        $boundary = new Contour([new Point(-4000.0, -3000.0), new Point(12_000.0, -3000.0), new Point(12_000.0, 9000.0), new Point(-4000.0, 9000.0)]);
        $ink = self::drawn($boundary, false);
        self::assertSame([], $ink->texts, 'No figures where none are wanted.');
        $chain = array_values(array_filter($ink->lines, static fn (InkLine $l): bool => 6 === \count($l->dashes)));
        self::assertCount(1, $chain);
        self::assertTrue($chain[0]->closed);
        self::assertSame(InkLine::MEDIUM, $chain[0]->width);
        $strokes = array_filter($ink->lines, static fn (InkLine $l): bool => InkLine::FINE === $l->width);
        self::assertGreaterThan(15, \count($strokes));
        self::assertCount(1, $ink->areas);
        $words = array_map(static fn (InkText $t): string => $t->words, self::drawn($boundary)->texts);
        self::assertContains('192.00 m²', $words, '16 by 12 metres');
        self::assertContains('16000', $words);
        self::assertContains('12000', $words);
    }
}
