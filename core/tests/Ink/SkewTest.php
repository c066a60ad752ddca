<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelAffine;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Pages\Skew;

/** How far a drawing is turned on its page is found to some thousandths of a degree. */
final class SkewTest extends TestCase
{
    /** @param float $degrees counter-clockwise as seen */
    #[TestWith([0.0])]
    #[TestWith([1.37])]
    #[TestWith([-2.8])]
    #[TestWith([17.2])]
    #[TestWith([-41.0])]
    #[TestWith([88.5])]
    public function testTheTurnIsFoundModuloAQuarter(float $degrees): void
    {
        $skew = Skew::of(self::turned($degrees));
        self::assertNotNull($skew);
        $off = fmod($skew->degrees - $degrees + 45.0 + 360.0, 90.0) - 45.0;
        self::assertEqualsWithDelta(0.0, $off, 0.01);
        self::assertGreaterThan(-45.0, $skew->degrees);
        self::assertLessThanOrEqual(45.0, $skew->degrees);
        self::assertGreaterThan(0.4, $skew->confidence);
    }

    public function testWhereLinesConvergeTheMiddleOfTheDrawingCounts(): void
    {
        // Long lines across whose slope falls from +2° at the top to −1° at the bottom: 0.5° in the middle.
        [$w, $h] = [1400, 1100];
        $rows = array_fill(0, $h, str_repeat(\chr(235), $w));
        for ($k = 0; $k < 21; ++$k) {
            $y0 = 100 + 45.0 * $k;
            $slope = tan(deg2rad(2.0 - 3.0 * $k / 20));
            for ($x = 120; $x < 1280; ++$x) {
                // Counter-clockwise as seen: up to the right. Two pixels of ink, its edges shared out between rows.
                $y = $y0 - $slope * ($x - 700);
                for ($j = (int) floor($y) - 1; $j <= (int) floor($y) + 3; ++$j) {
                    $covered = max(0.0, min($j + 1.0, $y + 2.0) - max((float) $j, $y));
                    $row = $rows[$j];
                    $row[$x] = \chr(min(\ord($row[$x]), (int) (235 - 200 * $covered)));
                    $rows[$j] = $row;
                }
            }
        }
        $skew = Skew::of(new GreyRaster($w, $h, implode('', $rows)));
        self::assertEqualsWithDelta(0.5, $skew?->degrees, 0.12);
    }

    /** @param array{float, float} $recedes along u and v over half the page's diagonal */
    #[TestWith([[0.0, 0.0], 0.0])]
    #[TestWith([[0.0, 0.0], 0.006])]
    #[TestWith([[0.05, 0.0], 0.0])]
    #[TestWith([[-0.03, 0.04], 0.0])]
    public function testLinesThatConvergeTellBySlant(array $recedes, float $askew): void
    {
        $leaning = Skew::of(self::seen($recedes, $askew, 1.5))?->leaning;
        self::assertNotNull($leaning);
        self::assertSame([0.0, 0.0] !== $recedes, $leaning->isSlanted());
        self::assertEqualsWithDelta($recedes[0], $leaning->u, 0.05 * hypot(...$recedes));
        self::assertEqualsWithDelta($recedes[1], $leaning->v, 0.05 * hypot(...$recedes));
        self::assertLessThan(0.004, $leaning->sigma);
        if (!$leaning->isSlanted()) {
            self::assertEqualsWithDelta($askew, $leaning->askew, 3.0 * $leaning->sigmaAskew);
            self::assertLessThan(0.001, $leaning->sigmaAskew);
        }
    }

    public function testAPageWithoutEdgesHasNone(): void
    {
        self::assertNull(Skew::of((new Sheets(400, 300, grain: 6))->raster()));
    }

    private static function turned(float $degrees): GreyRaster
    {
        $sheet = (new Sheets(900, 700, grain: 3))->plan(150, 140, 560, 380)->frame(200, 190, 90, 60)->fill(420, 300, 200, 3)->raster();

        return Sheets::warped(
            $sheet,
            PixelAffine::similar(1.0, deg2rad(-$degrees), new PixelPoint(450, 350), new PixelPoint(570, 570)),
            1140,
            1140,
        );
    }

    /**
     * A grid of lines as a camera sees it: where (u, v) of the page, centre 0, y up, unit half its diagonal, shows (u, v) / (1 + g·u + h·v)
     * of the drawing, sheared and turned.
     *
     * @param array{float, float} $recedes g and h
     * @param float $degrees counter-clockwise
     */
    private static function seen(array $recedes, float $askew, float $degrees): GreyRaster
    {
        [$w, $h] = [900, 700];
        $unit = hypot($w, $h) / 2.0;
        [$c, $s] = [cos(deg2rad($degrees)), sin(deg2rad($degrees))];
        $rows = '';
        for ($y = 0; $y < $h; ++$y) {
            for ($x = 0; $x < $w; ++$x) {
                $ink = 0;
                foreach ([[0.25, 0.25], [0.75, 0.25], [0.25, 0.75], [0.75, 0.75]] as [$dx, $dy]) {
                    [$u, $v] = [($x + $dx - $w / 2) / $unit, ($h / 2 - $y - $dy) / $unit];
                    // Lines drawn at a right angle are seen at one that is greater by `askew`.
                    [$along, $across] = [$c * $u + $s * $v, $c * $v - $s * $u];
                    $depth = 1.0 + $recedes[0] * $u + $recedes[1] * $v;
                    [$p, $q] = [$unit * ($along + $askew * $across) / $depth, $unit * $across / $depth];
                    $ink += fmod(abs($p) + 30.0, 60.0) < 3.0 || fmod(abs($q) + 30.0, 60.0) < 3.0 ? 1 : 0;
                }
                $rows .= \chr(235 - 50 * $ink);
            }
        }

        return new GreyRaster($w, $h, $rows);
    }
}
