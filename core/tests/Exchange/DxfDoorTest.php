<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Exchange;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Tests\Plan\Plans;

/** A door hangs at the jamb and opens to the side that was said, whatever way its wall runs. */
final class DxfDoorTest extends TestCase
{
    /** @return iterable<string, array{string, string, array{float, float}, array{float, float}}> */
    public static function doors(): iterable
    {
        // The wall runs along x, 200 thick; the door from 1000 to 1900. Left of the wall is up.
        yield 'near jamb, up' => ['left', 'left', [1000.0, 100.0], [1000.0, 1000.0]];
        yield 'far jamb, up' => ['right', 'left', [1900.0, 100.0], [1900.0, 1000.0]];
        yield 'near jamb, down' => ['left', 'right', [1000.0, -100.0], [1000.0, -1000.0]];
        yield 'far jamb, down' => ['right', 'right', [1900.0, -100.0], [1900.0, -1000.0]];
    }

    /**
     * @param array{float, float} $hinge
     * @param array{float, float} $tip of the open leaf
     */
    #[DataProvider('doors')]
    public function testTheLeafStandsWhereItWasHung(string $hand, string $swing, array $hinge, array $tip): void
    {
        $storey = Plans::storey([Plans::wall('w', 0, 0, 4000, 0)], [
            new Opening('d', 'w', OpeningKind::Door, 1000.0, 900.0, 0.0, null, $hand, $swing),
        ]);
        $dxf = DxfWriter::write($storey, Derivation::of($storey));
        $leaf = array_values(
            array_filter(
                $this->entities($dxf, 'LINE'),
                static fn (array $e): bool => 'openings' === $e[8] && abs(
                    hypot((float) $e[11] - (float) $e[10], (float) $e[21] - (float) $e[20]) - 900.0,
                ) < 1e-6,
            ),
        );
        self::assertCount(1, $leaf);
        self::assertEqualsWithDelta(
            [...$hinge, ...$tip],
            [(float) $leaf[0][10], (float) $leaf[0][20], (float) $leaf[0][11], (float) $leaf[0][21]],
            1e-9,
        );
        [$arc] = $this->entities($dxf, 'ARC');
        self::assertEqualsWithDelta($hinge, [(float) $arc[10], (float) $arc[20]], 1e-9);
        // The swing runs from the shut leaf to the open one, a quarter turn counter-clockwise from start to end.
        self::assertEqualsWithDelta(90.0, fmod((float) $arc[51] - (float) $arc[50] + 720.0, 360.0), 1e-9);
        $ends = array_map(
            static fn (int $code): array => [
                $hinge[0] + 900.0 * cos(deg2rad((float) $arc[$code])),
                $hinge[1] + 900.0 * sin(deg2rad((float) $arc[$code])),
            ],
            [50, 51],
        );
        $latch = [1000.0 === $hinge[0] ? 1900.0 : 1000.0, $hinge[1]];
        self::assertEqualsWithDelta($this->sorted([$latch, $tip]), $this->sorted($ends), 1e-6);
    }

    public function testAPlainOpeningHasJambsAndAWindowItsPanesAsWell(): void
    {
        foreach ([[OpeningKind::Opening, 2, 0], [OpeningKind::Window, 5, 3]] as [$kind, $all, $long]) {
            $storey = Plans::storey([Plans::wall('w', 0, 0, 4000, 0)], [new Opening('o', 'w', $kind, 1000.0, 900.0)]);
            $dxf = DxfWriter::write($storey, Derivation::of($storey));
            self::assertSame([], $this->entities($dxf, 'ARC'));
            $lines = array_filter($this->entities($dxf, 'LINE'), static fn (array $e): bool => 'openings' === $e[8]);
            self::assertCount($all, $lines);
            self::assertCount($long, array_filter($lines, static fn (array $e): bool => abs((float) $e[11] - (float) $e[10] - 900.0) < 1e-6));
        }
    }

    /** Two leaves of half the width each, hung at either jamb; one that slides lies along the wall and has no arc. */
    public function testDoubleAndSlidingDoorsHaveTheirOwnLeaves(): void
    {
        $of = function (string $leaf): array {
            $storey = Plans::storey([Plans::wall('w', 0, 0, 4000, 0)], [
                new Opening('d', 'w', OpeningKind::Door, 1000.0, 1500.0, 0.0, null, 'left', 'left', $leaf),
            ]);
            $dxf = DxfWriter::write($storey, Derivation::of($storey));

            return [$this->entities($dxf, 'ARC'), array_values(array_filter($this->entities($dxf, 'LINE'), static fn (array $e): bool => 'openings' === $e[8]))];
        };
        [$arcs, $lines] = $of('double');
        self::assertCount(2, $arcs);
        self::assertCount(2 + 2, $lines);
        foreach ($arcs as $arc) {
            self::assertEqualsWithDelta([750.0, 90.0], [(float) $arc[40], fmod((float) $arc[51] - (float) $arc[50] + 720.0, 360.0)], 1e-9);
        }
        $hinges = array_map(static fn (array $a): array => [(float) $a[10], (float) $a[20]], $arcs);
        self::assertEqualsWithDelta([[1000.0, 100.0], [2500.0, 100.0]], $this->sorted($hinges), 1e-9);
        [$arcs, $lines] = $of('sliding');
        self::assertSame([], $arcs);
        $leaf = array_values(array_filter($lines, static fn (array $e): bool => abs(abs((float) $e[11] - (float) $e[10]) - 1500.0) < 1e-6));
        self::assertCount(1, $leaf);
        self::assertEqualsWithDelta([100.0, 100.0], [(float) $leaf[0][20], (float) $leaf[0][21]], 1e-9);
    }

    /** @return list<array<int, string>> group code → value of each entity of the type */
    private function entities(string $dxf, string $type): array
    {
        $lines = explode("\r\n", $dxf);
        $found = [];
        for ($i = 0; $i + 1 < \count($lines); $i += 2) {
            if ('0' === $lines[$i] && $type === $lines[$i + 1]) {
                $entity = [];
                for ($j = $i + 2; '0' !== $lines[$j]; $j += 2) {
                    $entity[(int) $lines[$j]] = $lines[$j + 1];
                }
                $found[] = $entity;
            }
        }

        return $found;
    }

    /**
     * @param list<array{float, float}> $points
     *
     * @return list<array{float, float}>
     */
    private function sorted(array $points): array
    {
        usort($points, static fn (array $a, array $b): int => [round($a[0]), round($a[1])] <=> [round($b[0]), round($b[1])]);

        return $points;
    }
}
