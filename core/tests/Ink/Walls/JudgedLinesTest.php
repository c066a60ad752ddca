<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Walls;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Ink\Walls\Internal\Filling;
use Plinth\Core\Ink\Walls\Internal\JudgedLines;
use Plinth\Core\Ink\Walls\Internal\LineNet;
use Plinth\Core\Ink\Walls\Internal\Pens;
use Plinth\Core\Ink\Walls\Internal\Strip;
use Plinth\Core\Ink\Walls\Internal\WallLine;

/** Which lines are walls is told by how they show and how they stand to each other. */
final class JudgedLinesTest extends TestCase
{
    public function testANetIsItsWeighedSumAndItsHiddenUnitsThroughTheLogisticFunction(): void
    {
        $net = new LineNet(['first' => [[1.0, -2.0]], 'firstBias' => [0.5], 'second' => [3.0], 'linear' => [0.25, 0.0], 'bias' => -1.0]);
        // 1 / (1 + exp(−(3 tanh(0.5 + 2 − 1) + 0.5 − 1)))
        self::assertEqualsWithDelta(1.0 / (1.0 + exp(-(3.0 * tanh(1.5) - 0.5))), $net->of([2.0, 0.5]), 1e-12);
        self::assertGreaterThan(0.999, $net->of([1e9, -1e9]));
    }

    public function testTheRingOfABuildingIsTakenAndThePairOfLinesBesideItIsNot(): void
    {
        $walls = JudgedLines::walls([...self::building(), self::line(-900.0, 0.0, 9000.0, false, 60.0, Filling::Empty, even: 0.6)]);
        self::assertCount(6, $walls);
        foreach ($walls as $wall) {
            self::assertSame(Filling::Solid, $wall->look->filling);
            self::assertGreaterThan(0.8, $wall->confidence);
        }
    }

    public function testAWallThatTwoMannersShowIsTakenOnce(): void
    {
        $twice = self::line(0.0, 0.0, 8000.0, false, 250.0, Filling::Toned);
        self::assertCount(6, JudgedLines::walls([...self::building(), $twice]));
    }

    public function testLettersInARowAreNoWall(): void
    {
        // Two words of a name between the partitions, drawn together as if a door stood between them.
        $letters = self::line(4200.0, 4000.0, 5500.0, false, 190.0, Filling::Toned, even: 0.9, parts: [[4000.0, 4350.0], [5150.0, 5500.0]]);
        self::assertCount(6, JudgedLines::walls([...self::building(), $letters]));
    }

    public function testTheOrderInWhichLinesComeChangesNothing(): void
    {
        $lines = [...self::building(), self::line(-900.0, 0.0, 9000.0, false, 60.0, Filling::Empty, even: 0.6)];
        $told = static function (array $walls): array {
            $of = [];
            foreach ($walls as $w) {
                \assert($w instanceof WallLine);
                $of[] = [$w->from->toArray(), $w->to->toArray(), round($w->confidence, 9)];
            }
            sort($of);

            return $of;
        };
        self::assertSame($told(JudgedLines::walls($lines)), $told(JudgedLines::walls(array_reverse($lines))));
    }

    public function testNoLinesAreNoWalls(): void
    {
        self::assertSame([], JudgedLines::walls([]));
    }

    /** @return list<WallLine> a solid ring of 8 × 5 m and two partitions */
    private static function building(): array
    {
        return [
            self::line(0.0, 0.0, 8000.0, false, 250.0), self::line(5000.0, 0.0, 8000.0, false, 250.0),
            self::line(0.0, 0.0, 5000.0, true, 250.0), self::line(8000.0, 0.0, 5000.0, true, 250.0),
            self::line(3000.0, 0.0, 5000.0, true, 120.0), self::line(2000.0, 3000.0, 8000.0, false, 120.0),
        ];
    }

    /** @param list<array{float, float}>|null $parts where it shows, all along where nothing is said */
    private static function line(
        float $at,
        float $from,
        float $to,
        bool $plumb,
        float $thickness,
        Filling $filling = Filling::Solid,
        float $even = 1.0,
        ?array $parts = null,
    ): WallLine {
        $tone = match ($filling) {
            Filling::Solid => 250.0,
            Filling::Toned => 110.0,
            Filling::Empty => 3.0,
        };
        $pen = Filling::Empty === $filling ? 20.0 : null;
        $strip = new Strip($from, $to, $at, $thickness, $filling, $plumb, $parts ?? [[$from, $to]], $tone, $pen, even: $even);

        return WallLine::of($strip, 0.0, Pens::of([$strip]));
    }
}
