<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Exchange;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\SettingOut;
use Plinth\Core\Projection\LineRole;
use Plinth\Core\Projection\Projection;
use Plinth\Core\Projection\View;
use Plinth\Core\Projection\ViewLine;
use Plinth\Core\Sheets\PlanBeside;
use Plinth\Core\Stairs\StairForm;
use Plinth\Core\Stairs\StairPlan;
use Plinth\Core\Tests\Bodies\House;
use Plinth\Core\Tests\Outside;
use Plinth\Core\Tests\Plan\Plans;
use Plinth\Core\Tests\Stairs\Stairs;
use Plinth\Core\Units\DisplayUnit;

final class DxfWriterTest extends TestCase
{
    /** 15 risers of 900 mm: those under the cut, and beyond it, on layers of their own; the edges of 14 treads of 250 beside them. */
    public function testAStairIsDrawnUpToItsCutAndBeyondIt(): void
    {
        $plan = StairPlan::below(StairForm::of((new Stairs())->of('straight'), 2700.0));
        $file = (string) tempnam(sys_get_temp_dir(), 'dxf');
        $storey = Plans::storey(Plans::rectangle());
        file_put_contents($file, DxfWriter::write($storey, Derivation::of($storey), new PlanBeside([$plan])));
        $read = Outside::ask('dxf.py', ['file' => $file]);
        unlink($file);
        self::assertSame([0, 0], [$read['errors'], $read['fixes']], 'Neither ezdxf nor GDAL finds anything wrong.');
        self::assertIsArray($read['lines']);
        $of = static fn (string $layer, float $mm): int => \count(array_filter(
            $read['lines'],
            static fn (mixed $l): bool => \is_array($l) && $layer === $l[0] && \is_float($l[1]) && abs($l[1] - $mm) < 1e-6,
        ));
        self::assertSame([6, 9], [$of('stairs', 900.0), $of('stairs-beyond', 900.0)]);
        // Two edges of each tread, and the way up over it.
        self::assertSame([6 * 2 + 14, 8 * 2], [$of('stairs', 250.0), $of('stairs-beyond', 250.0)]);
        self::assertIsArray($read['texts']);
        self::assertContains('UP 15 R', $read['texts']);
    }

    /** What is cut, as closed polylines, and what is seen behind it, on layers of their own; as much of each as the view has. */
    public function testASectionIsDrawnAsTheViewHasIt(): void
    {
        $view = Projection::of(
            BuildingBodies::of((new House())->plan()),
            View::section([new Point(-500.0, 3300.0), new Point(10_500.0, 3300.0)]),
        );
        $file = (string) tempnam(sys_get_temp_dir(), 'dxf');
        file_put_contents($file, DxfWriter::view($view));
        $read = Outside::ask('dxf.py', ['file' => $file]);
        unlink($file);
        self::assertSame([0, 0], [$read['errors'], $read['fixes']]);
        self::assertIsArray($read['lines']);
        $seen = array_filter($view->lines, static fn (ViewLine $l): bool => LineRole::Visible === $l->role);
        $lengths = array_filter($read['lines'], static fn (mixed $l): bool => \is_array($l) && 'seen' === $l[0]);
        self::assertCount(\count($seen), $lengths);
        self::assertEqualsWithDelta(
            array_sum(array_map(static fn (ViewLine $l): float => $l->length(), $seen)),
            array_sum(array_column($lengths, 1)),
            1e-6,
        );
    }

    public function testEzdxfAndGdalReadTheLengthsThatWereWritten(): void
    {
        $storey = Plans::storey(
            [...Plans::rectangle(), Plans::wall('slanted', 0, 0, 6000, 4000, 123.4)],
            [new Opening('o', 'south', OpeningKind::Door, 1000, 910)],
            [new Room('r', "Wäsche\n & Trocknen", '12', new Point(4000, 1000))],
        );
        $file = (string) tempnam(sys_get_temp_dir(), 'dxf');
        file_put_contents($file, DxfWriter::write($storey, $derived = Derivation::of($storey)));
        $read = Outside::ask('dxf.py', ['file' => $file]);
        unlink($file);
        self::assertSame(0, $read['errors']);
        self::assertSame(0, $read['fixes']);
        self::assertSame(4, $read['units'], 'ezdxf calls millimetres 4.');
        self::assertIsArray($read['lines']);
        self::assertIsArray($read['gdal']);
        self::assertIsArray($read['arcs']);
        $centre = array_values(array_filter($read['lines'], static fn (mixed $l): bool => \is_array($l) && 'centre-lines' === $l[0]));
        self::assertEqualsWithDelta(
            [
                ['centre-lines', 4000.0],
                ['centre-lines', 4000.0],
                ['centre-lines', 6000.0],
                ['centre-lines', 6000.0],
                ['centre-lines', hypot(6000, 4000)],
            ],
            $centre,
            1e-9,
        );
        self::assertEqualsWithDelta($read['lines'], $read['gdal'], 1e-6, 'Both libraries read the same.');
        self::assertEqualsWithDelta([[910.0, 90.0]], $read['arcs'], 1e-6);
        self::assertIsArray($read['texts']);
        self::assertContains(
            '12 Wäsche & Trocknen',
            array_map(static fn (mixed $t): string => \is_string($t) ? (string) preg_replace('/ +/', ' ', $t) : '', $read['texts']),
        );
        self::assertCount(2, $derived->regions);
    }

    #[TestWith([DisplayUnit::FeetAndSixteenths, 1, 25.4, '22.04 m2', '237.2 sq ft'])]
    #[TestWith([DisplayUnit::Foot, 2, 304.8, '22.04 m2', '237.2 sq ft'])]
    #[TestWith([DisplayUnit::Metre, 6, 1000.0, '237.2 sq ft', '22.04 m2'])]
    public function testItIsDrawnInTheProjectsOwnUnit(DisplayUnit $unit, int $number, float $mm, string $never, string $area): void
    {
        $storey = Plans::storey(Plans::rectangle(), [], [new Room('r', 'Loft', '1', new Point(2000, 1000))]);
        $file = (string) tempnam(sys_get_temp_dir(), 'dxf');
        file_put_contents($file, DxfWriter::write($storey, Derivation::of($storey), unit: $unit));
        $read = Outside::ask('dxf.py', ['file' => $file]);
        unlink($file);
        self::assertSame([0, $number], [$read['errors'], $read['units']], 'ezdxf and the published reference number units so.');
        self::assertIsArray($read['lines']);
        $centre = array_filter($read['lines'], static fn (mixed $l): bool => \is_array($l) && 'centre-lines' === $l[0]);
        $lengths = array_column($centre, 1);
        sort($lengths);
        self::assertEqualsWithDelta([4000.0 / $mm, 4000.0 / $mm, 6000.0 / $mm, 6000.0 / $mm], $lengths, 1e-9);
        self::assertEqualsWithDelta($read['lines'], $read['gdal'], 1e-6, 'Both libraries read the same.');
        self::assertIsArray($read['texts']);
        self::assertContains($area, $read['texts']);
        self::assertNotContains($never, $read['texts']);
    }

    public function testWhatWhoeverReadsItShouldKnowStandsInIt(): void
    {
        $storey = Plans::storey(Plans::rectangle());
        $file = (string) tempnam(sys_get_temp_dir(), 'dxf');
        file_put_contents($file, $dxf = DxfWriter::write($storey, Derivation::of($storey), remarks: ['Sizes are a guess.']));
        $read = Outside::ask('dxf.py', ['file' => $file]);
        unlink($file);
        self::assertSame([0, 0], [$read['errors'], $read['fixes']]);
        self::assertIsArray($read['texts']);
        self::assertContains('Sizes are a guess.', $read['texts']);
        self::assertStringStartsWith("999\r\nSizes are a guess.\r\n", $dxf, 'A comment, before anything else.');
    }

    public function testAxesColumnsAndBoundariesGoAlong(): void
    {
        $storey = Plans::storey(Plans::rectangle());
        $settingOut = new SettingOut(
            [['label' => '1', 'along' => 'x', 'at' => 0.0], ['label' => 'B', 'along' => 'y', 'at' => 2000.0]],
            [SettingOut::column(3000, 2000, 350, 400, false), SettingOut::column(0, 0, 300, 300, true)],
            [[[-5000.0, -5000.0], [9000.0, -5000.0], [9000.0, 8000.0]]],
        );
        $file = (string) tempnam(sys_get_temp_dir(), 'dxf');
        file_put_contents($file, DxfWriter::write($storey, Derivation::of($storey), new PlanBeside(settingOut: $settingOut)));
        $read = Outside::ask('dxf.py', ['file' => $file]);
        unlink($file);
        self::assertSame([0, 0], [$read['errors'], $read['fixes']]);
        self::assertIsArray($read['lines']);
        self::assertEqualsWithDelta($read['lines'], $read['gdal'], 1e-6, 'Both libraries read the same.');
        $on = static fn (string $layer): array => array_values(
            array_map(
                static fn (array $l): mixed => $l[1] ?? null,
                array_filter($read['lines'], static fn (mixed $l): bool => \is_array($l) && $layer === $l[0]),
            ),
        );
        self::assertEqualsWithDelta([\M_PI * 300, 1500.0], $on('columns'), 2.0, 'A round one within a hundredth.');
        self::assertEqualsWithDelta([14_000 + 13_000 + hypot(14_000, 13_000)], $on('boundary'), 1e-6);
        self::assertCount(2, $on('axes'));
        self::assertIsArray($read['texts']);
        self::assertContains('B', $read['texts']);
        self::assertStringContainsString(
            'axes',
            DxfWriter::write(Plans::storey([]), Derivation::of(Plans::storey([])), new PlanBeside(settingOut: $settingOut)),
            'Also where nothing is traced.',
        );
    }
}
