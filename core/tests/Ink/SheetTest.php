<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Pages\Internal\PhotographedSheet;
use Plinth\Core\Ink\Pages\Sheet;
use Plinth\Core\Ink\Pages\Skew;

/** A sheet on a table, photographed at a slant: its edges, and what its proportions say of the camera. Sheets of ISO 216 (from memory). */
final class SheetTest extends TestCase
{
    private const WIDTH = 640;
    private const HEIGHT = 480;

    #[TestWith([297.0, 210.0, 225, 120])]
    #[TestWith([420.0, 297.0, 120, 60])]
    #[TestWith([420.0, 297.0, 60, 200])]
    public function testTheCornersOfASheetAreFound(float $wide, float $high, int $paper, int $table): void
    {
        $seen = self::camera(1.2, 24.0, 130.0, $wide, $high);
        $sheet = Sheet::in(self::picture($seen, $wide, $high, $paper, $table));
        self::assertNotNull($sheet);
        foreach ([[-1, 1], [1, 1], [1, -1], [-1, -1]] as $i => [$x, $y]) {
            self::assertLessThan(0.6, $sheet->corners[$i]->distanceTo($seen($x * $wide / 2.0, $y * $high / 2.0)));
        }
    }

    public function testWhatShowsNoFourStraightEdgesIsNoSheet(): void
    {
        self::assertNull(Sheet::in(new GreyRaster(200, 100, str_repeat("\xE0", 20_000))), 'Paper alone.');
        // A sheet that goes on beyond the picture on the left.
        $bytes = str_repeat(str_repeat("\x40", 200), 10).str_repeat(str_repeat("\xE0", 150).str_repeat("\x40", 50), 80).str_repeat(str_repeat("\x40", 200), 10);
        self::assertNull(Sheet::in(new GreyRaster(200, 100, $bytes)));
    }

    /** Nothing is drawn on it: its own edges say how it leans, to within what they tell. */
    #[TestWith([10.0, 130.0])]
    #[TestWith([24.0, 200.0])]
    #[TestWith([15.0, 90.0])]
    public function testASheetWithoutLinesIsStraightenedByItsEdges(float $tilt, float $towards): void
    {
        $leaning = Skew::of(self::picture(self::camera(1.2, $tilt, $towards, 297.0, 210.0), 297.0, 210.0, 225, 120))?->leaning;
        self::assertNotNull($leaning);
        // Depth over that of the middle, along the slant, for a camera of that focal length: tan t / f.
        $recedes = tan(deg2rad($tilt)) / 1.2;
        self::assertEqualsWithDelta(-$recedes * cos(deg2rad($towards)), $leaning->u, 4.0 * $leaning->sigma);
        self::assertEqualsWithDelta(-$recedes * sin(deg2rad($towards)), $leaning->v, 4.0 * $leaning->sigma);
        self::assertLessThan(0.002, $leaning->sigma);
    }

    /** Sheets of A series, cameras from telephones to short tele lenses, 12 to 30° off, any way round: 200 of them. */
    public function testASheetOfISO216TellsTheFocalLengthWhereItLeansEnough(): void
    {
        mt_srand(4);
        [$told, $within] = [0, 0];
        for ($case = 0; $case < 200; ++$case) {
            $focal = 1.15 * 2.2 ** self::part();
            $found = self::told(self::camera($focal, 12.0 + 18.0 * self::part(), 360.0 * self::part(), 297.0, 420.0), 297.0, 420.0);
            if (null !== $found) {
                ++$told;
                $within += abs($found['ratio'] / $focal - 1.0) < 2.0 * $found['part'] ? 1 : 0;
            }
        }
        self::assertGreaterThan(80, $told);
        self::assertGreaterThan(0.9, $within / $told);
    }

    /** Property: other sheets are never taken for one that says something wrong. */
    #[TestWith([279.4, 215.9])]
    #[TestWith([431.8, 279.4])]
    #[TestWith([914.4, 609.6])]
    public function testOtherSheetsSayNothing(float $wide, float $high): void
    {
        mt_srand(5);
        for ($case = 0; $case < 200; ++$case) {
            self::assertNull(self::told(self::camera(1.15 * 2.2 ** self::part(), 30.0 * self::part(), 360.0 * self::part(), $wide, $high), $wide, $high));
        }
    }

    /**
     * @param callable(float, float): PixelPoint $seen
     *
     * @return array{ratio: float, part: float}|null
     */
    private static function told(callable $seen, float $wide, float $high): ?array
    {
        $unit = hypot(self::WIDTH, self::HEIGHT) / 2.0;
        $corners = [];
        foreach ([[-1, 1], [1, 1], [1, -1], [-1, -1]] as [$x, $y]) {
            $p = $seen($x * $wide / 2.0, $y * $high / 2.0);
            $corners[] = [($p->x - self::WIDTH / 2.0) / $unit + 0.0002 * (self::part() - 0.5), (self::HEIGHT / 2.0 - $p->y) / $unit];
        }

        return PhotographedSheet::of($corners[0], $corners[1], $corners[2], $corners[3], 0.0004)?->focal();
    }

    /**
     * A pinhole camera over the middle of a sheet.
     *
     * @param float $focal over half the diagonal
     *
     * @return callable(float, float): PixelPoint
     */
    private static function camera(float $focal, float $tilt, float $towards, float $wide, float $high): callable
    {
        $unit = hypot(self::WIDTH, self::HEIGHT) / 2.0;
        // As far away as shows the sheet with some of what it lies on.
        $away = $focal * hypot($wide, $high) * 0.85;
        [$c, $s, $t] = [cos(deg2rad($towards)), sin(deg2rad($towards)), deg2rad($tilt)];

        return static function (float $x, float $y) use ($focal, $unit, $away, $c, $s, $t): PixelPoint {
            [$along, $across] = [$c * $x + $s * $y, $c * $y - $s * $x];
            [$depth, $along] = [$away + $along * sin($t), $along * cos($t)];
            $k = $focal * $unit / $depth;

            return new PixelPoint(self::WIDTH / 2.0 + $k * ($c * $along - $s * $across), self::HEIGHT / 2.0 - $k * ($s * $along + $c * $across));
        };
    }

    /** @param callable(float, float): PixelPoint $seen */
    private static function picture(callable $seen, float $wide, float $high, int $paper, int $table): GreyRaster
    {
        $corners = array_map(static fn (array $p): PixelPoint => $seen($p[0] * $wide / 2.0, $p[1] * $high / 2.0), [[-1, 1], [1, 1], [1, -1], [-1, -1]]);
        $bytes = '';
        mt_srand(8);
        for ($y = 0; $y < self::HEIGHT; ++$y) {
            for ($x = 0; $x < self::WIDTH; ++$x) {
                // How far inside of the nearest edge the pixel's middle lies: what it covers of it.
                $inside = \INF;
                foreach ($corners as $i => $p) {
                    $q = $corners[($i + 1) % 4];
                    $inside = min($inside, (($q->x - $p->x) * ($y + 0.5 - $p->y) - ($q->y - $p->y) * ($x + 0.5 - $p->x)) / $p->distanceTo($q));
                }
                $covers = max(0.0, min(1.0, $inside + 0.5));
                $bytes .= \chr((int) ($table + $covers * ($paper - $table) + mt_rand(-3, 3)));
            }
        }

        return new GreyRaster(self::WIDTH, self::HEIGHT, $bytes);
    }

    private static function part(): float
    {
        return mt_rand() / mt_getrandmax();
    }
}
