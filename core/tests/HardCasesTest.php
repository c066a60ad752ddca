<?php

declare(strict_types=1);

namespace Plinth\Core\Tests;

use PHPUnit\Framework\Attributes\DataProviderExternal;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Elevation\Exception\UnusableOutline;
use Plinth\Core\Elevation\Outline;
use Plinth\Core\Exchange\Dxf\DxfLines;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Geometry\Clip;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Editing\Joining;
use Plinth\Core\Plan\Editing\Mend;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Settling\StoreySettled;

/** What is hard for one module is hard for all: one set of cases goes through each of them. */
final class HardCasesTest extends TestCase
{
    /** @param list<array{float, float}> $ring */
    #[DataProviderExternal(HardCases::class, 'rings')]
    public function testRingsHaveTheirAreasAndUnionsNoMoreThanThey(array $ring, float $area): void
    {
        // Far out the last digit of a coordinate is a tenth of a micrometre.
        self::assertEqualsWithDelta($area, Polygon::area($ring), 1e-4);
        $covered = Overlay::area(Overlay::union([$ring, array_reverse($ring)]));
        self::assertGreaterThanOrEqual(0.0, $covered);
        self::assertEqualsWithDelta(0.0, Overlay::area(Overlay::difference([$ring], [$ring])), 1e-3);
        // What goes round twice counts once, what goes round the other way not at all.
        $ccw = $area < 0.0 ? array_reverse($ring) : $ring;
        self::assertEqualsWithDelta(Overlay::area(Overlay::union([$ccw])), Overlay::area(Overlay::union([$ccw, $ccw])), 1e-9);
        self::assertGreaterThanOrEqual(abs($area) - 1e-3, Overlay::area(Overlay::union([$ccw])));
        self::assertEqualsWithDelta($area, Clip::area($ring, [[-1e9, -1e9], [1e9, -1e9], [1e9, 1e9], [-1e9, 1e9]]), 1e-3);
    }

    /** @param list<array{float, float}> $ring */
    #[DataProviderExternal(HardCases::class, 'rings')]
    public function testAnOutlineIsMeasuredOrRefusedInWords(array $ring, float $area): void
    {
        try {
            $outline = Outline::round(array_map(static fn (array $p): Point => new Point(...$p), $ring));
            self::assertEqualsWithDelta(abs($area) / 1e6, $outline->areaM2(), 1e-9);
        } catch (UnusableOutline $e) {
            self::assertNotSame('', $e->getMessage());
        }
    }

    /** @param list<Wall> $walls */
    #[DataProviderExternal(HardCases::class, 'walls')]
    public function testStoreysAreDerivedTheSameWhereverTheyLie(array $walls): void
    {
        $derived = Derivation::of(self::storey($walls));
        $union = Overlay::area(array_map(static fn ($o): array => ['outer' => $o->outer, 'holes' => $o->holes], $derived->outlines));
        self::assertGreaterThanOrEqual(0.0, $derived->areasMm2['structure']);
        self::assertEqualsWithDelta($union, $derived->areasMm2['structure'], 2e-4 * $union + 1.0);
        [$c, $s] = [cos(0.3), sin(0.3)];
        $to = static fn (Point $p): Point => new Point(1000.0 + $c * $p->x - $s * $p->y, $s * $p->x + $c * $p->y);
        $twin = Derivation::of(
            self::storey(
                array_map(
                    static fn (Wall $w): Wall => new Wall("t$w->id", $to($w->from), $to($w->to), $w->thickness, rise: $w->rise),
                    $walls,
                ),
            ),
        );
        // Arcs that lie on others are told by chords, whose corners lie elsewhere on them.
        $isCurved = [] !== array_filter($walls, static fn (Wall $w): bool => null !== $w->arc());
        self::assertEqualsWithDelta($derived->areasMm2, $twin->areasMm2, $isCurved ? 2e-4 * $union + 2.0 : 1e-6 * $union + 1e-3);
        self::assertSameSize($derived->findings, $twin->findings);
    }

    /** @param list<Wall> $walls */
    #[DataProviderExternal(HardCases::class, 'walls')]
    public function testStoreysSettleAndThenRest(array $walls): void
    {
        $settled = StoreySettled::of(self::storey($walls));
        foreach ($settled->settled->sigmas as $sigma) {
            self::assertTrue(is_finite($sigma[0] + $sigma[1]));
        }
        self::assertSame([], StoreySettled::of($settled->storey)->moves);
    }

    /** @param list<Wall> $walls */
    #[DataProviderExternal(HardCases::class, 'walls')]
    public function testEveryPairHasAnActThatMendsItAndWallsJoinWhatIsThere(array $walls): void
    {
        foreach ($walls as $a) {
            foreach ($walls as $b) {
                if ($a !== $b) {
                    $mend = Mend::of($a, $b);
                    self::assertEqualsCanonicalizing([$a->id, $b->id], [$mend->wall, $mend->other]);
                    self::assertTrue(is_finite($mend->from->distanceTo($mend->to)));
                }
            }
        }
        $joined = Joining::of($walls, [], []);
        self::assertLessThanOrEqual(\count($walls), \count($joined['walls']));
    }

    /** @param list<Wall> $walls */
    #[DataProviderExternal(HardCases::class, 'walls')]
    public function testWhatIsWrittenIsReadAgain(array $walls): void
    {
        $storey = self::storey(
            array_values(
                array_filter(
                    $walls,
                    static fn (Wall $w): bool => $w->from->distanceTo($w->to) > Wall::JOIN_MM && (0.0 === $w->rise || abs($w->rise) > 0.01),
                ),
            ),
        );
        $read = PlanReader::read(json_encode(PlanWriter::document(new Plan([$storey])), \JSON_THROW_ON_ERROR));
        self::assertEquals([$storey], $read->storeys);
        $file = (string) tempnam(sys_get_temp_dir(), 'hard');
        file_put_contents($file, DxfWriter::write($storey, Derivation::of($storey)));
        self::assertSame([] === $storey->walls, [] === DxfLines::read($file)->chains);
        unlink($file);
    }

    /** @param list<Wall> $walls */
    private static function storey(array $walls): Storey
    {
        return new Storey('s', 'Ground', 0.0, 2700.0, $walls);
    }
}
