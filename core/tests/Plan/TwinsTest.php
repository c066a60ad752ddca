<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Derivation\Finding;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Wall;

/** A plan that is moved, turned, mirrored or called otherwise is the same plan. */
final class TwinsTest extends TestCase
{
    private const NAMES = ['7', '10', '1e1', '0', '-1', '007', '0x1A', 'null', 'true', ' 7', '7 ', 'é', '~mend/7', '=7', "7\0x", '1.0'];

    public function testWhereverAndHoweverItLiesItsAreasAndFindingsAreTheSame(): void
    {
        $first = false === getenv('SEED') ? 5001 : (int) getenv('SEED');
        for ($seed = $first; $seed < $first + 60; ++$seed) {
            $walls = Plans::tangled($seed);
            $asDrawn = Derivation::of(Plans::storey($walls));
            foreach ([
                'moved' => [0.0, 1.0],
                'turned' => [30.0, 1.0],
                'turned back' => [-123.4, 1.0],
                'mirrored' => [0.0, -1.0],
            ] as $how => [$degrees, $mirror]) {
                [$c, $s] = [cos(deg2rad($degrees)), sin(deg2rad($degrees))];
                $to = static fn (Point $p): Point => new Point(
                    6.5e8 + $c * $p->x - $s * $mirror * $p->y,
                    2.2e8 + $s * $p->x + $c * $mirror * $p->y,
                );
                $twin = Derivation::of(
                    Plans::storey(
                        array_map(static fn (Wall $w): Wall => new Wall($w->id, $to($w->from), $to($w->to), $w->thickness), $walls),
                    ),
                );
                // At 650 km the last digit of a coordinate is a tenth of a micrometre.
                self::assertSameAreas($asDrawn, $twin, 1e-6, "seed $seed, $how");
                self::assertSame(self::told($asDrawn), self::told($twin), "seed $seed, $how");
            }
        }
    }

    public function testAnyTextIsAnId(): void
    {
        for ($seed = 6001; $seed < 6041; ++$seed) {
            $walls = Plans::tangled($seed);
            $names = self::NAMES;
            mt_srand($seed);
            shuffle($names);
            $named = array_map(
                static fn (Wall $w, int $i): Wall => new Wall(
                    $names[$i % \count($names)].($i < \count($names) ? '' : $i),
                    $w->from,
                    $w->to,
                    $w->thickness,
                ),
                $walls,
                array_keys($walls),
            );
            // Of ends within a millimetre the one whose name comes first makes the node.
            self::assertSameAreas(Derivation::of(Plans::storey($walls)), Derivation::of(Plans::storey($named)), 1e-5, "seed $seed");
        }
    }

    public function testNumbersAreIdsOfOpeningsAndRoomsToo(): void
    {
        $walls = array_map(
            static fn (Wall $w, int $i): Wall => new Wall((string) $i, $w->from, $w->to, $w->thickness),
            Plans::rectangle(),
            [3, 7, 1, 0],
        );
        $openings = [new Opening('7', '3', OpeningKind::Door, 1000, 900), new Opening('0', '7', OpeningKind::Window, 500, 1200)];
        $storey = Plans::storey($walls, $openings, [new Room('1', 'Hall', '1', new Point(3000, 2000))]);
        $derived = Derivation::of($storey);
        self::assertEqualsCanonicalizing(['7', '0'], array_map(strval(...), array_keys($derived->openings)));
        $written = PlanWriter::derived($derived);
        self::assertIsArray($written['openings']);
        self::assertEqualsCanonicalizing(['7', '0'], array_column($written['openings'], 'id'));
        foreach (array_column($written['openings'], 'id') as $id) {
            self::assertIsString($id);
        }
        self::assertStringContainsString('Hall', DxfWriter::write($storey, $derived));
    }

    /** @return list<array{string, list<string>}> */
    private static function told(DerivedStorey $derived): array
    {
        $told = array_map(static fn (Finding $f): array => [$f->code, $f->things], $derived->findings);
        sort($told);

        return $told;
    }

    private static function assertSameAreas(DerivedStorey $a, DerivedStorey $b, float $exact, string $message): void
    {
        foreach (['structure', 'netFloor', 'grossFloor'] as $area) {
            self::assertEqualsWithDelta($a->areasMm2[$area], $b->areasMm2[$area], $exact * $a->areasMm2['grossFloor'], "$message, $area");
        }
        [$ours, $theirs] = array_map(static function (DerivedStorey $d): array {
            $areas = array_values(
                array_filter(
                    array_map(static fn (Region $r): float => $r->netAreaMm2, $d->regions),
                    static fn (float $m): bool => $m > 10_000.0,
                ),
            );
            sort($areas);

            return $areas;
        }, [$a, $b]);
        self::assertEqualsWithDelta($ours, $theirs, $exact * $a->areasMm2['grossFloor'], $message);
    }
}
