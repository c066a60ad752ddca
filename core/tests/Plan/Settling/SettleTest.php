<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan\Settling;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\JoinedWall;
use Plinth\Core\Plan\Line;
use Plinth\Core\Plan\Settling\Held;
use Plinth\Core\Plan\Settling\Settle;
use Plinth\Core\Plan\Wall;

final class SettleTest extends TestCase
{
    /** Two rooms of 3 and 4 m beside each other, and a bay at 45°. */
    private const NODES = ['a' => [0, 0], 'b' => [7200, 0], 'c' => [7200, 5000], 'd' => [0, 5000], 'e' => [3100, 0], 'f' => [3100, 5000], 'g' => [8200, 1000], 'h' => [8200, 4000]];
    private const WALLS = ['south' => ['a', 'b'], 'east' => ['b', 'c'], 'north' => ['c', 'd'], 'west' => ['d', 'a'], 'middle' => ['e', 'f'], 'bay1' => ['b', 'g'], 'bay2' => ['g', 'h'], 'bay3' => ['h', 'c']];

    /**
     * @param array<string, array{float, float}> $nodes
     *
     * @return array{list<JoinedWall>, array<string, Point>}
     */
    private static function plan(array $nodes): array
    {
        $points = array_map(static fn (array $p): Point => new Point(...$p), $nodes);
        $walls = [];
        foreach (self::WALLS as $id => [$from, $to]) {
            $walls[] = new JoinedWall(new Wall($id, $points[$from], $points[$to], 100.0), $from, $to);
        }

        return [$walls, $points];
    }

    /**
     * @return array<string, array{float, float}>
     */
    private static function perturbed(int $seed, float $sigma): array
    {
        mt_srand($seed);
        $normal = static fn (): float => sqrt(-2.0 * log(max(1e-12, mt_rand() / mt_getrandmax()))) * cos(2.0 * \M_PI * mt_rand() / mt_getrandmax());

        return array_map(static fn (array $p): array => [$p[0] + $sigma * $normal(), $p[1] + $sigma * $normal()], self::NODES);
    }

    /**
     * @param array<string, Point> $points
     * @param array<string, Point> $moves
     *
     * @return array<string, array{float, float}>
     */
    private static function after(array $points, array $moves): array
    {
        return array_map(static fn (Point $p): array => $p->toArray(), $moves + $points);
    }

    public function testWhatHoldsAlreadyDoesNotMove(): void
    {
        [$walls, $points] = self::plan(self::NODES);
        $settled = Settle::storey($walls, $points, [], [new Held('clear', 'west', Line::Left, 'middle', Line::Left, 3000.0)]);

        self::assertSame([], $settled->moves);
        self::assertSame(0, $settled->straightened);
        self::assertSame(['clear'], $settled->held);
    }

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        for ($seed = 1; $seed <= 40; ++$seed) {
            yield "seed $seed" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function testSettlingTwiceIsSettlingOnce(int $seed): void
    {
        $figures = [new Held('overall', 'west', Line::Right, 'east', Line::Right, 7300.0), new Held('clear', 'west', Line::Left, 'middle', Line::Left, 3000.0)];
        [$walls, $points] = self::plan(self::perturbed($seed, 8.0));
        $once = self::after($points, Settle::storey($walls, $points, [], $figures)->moves);
        [$walls, $points] = self::plan($once);
        $again = Settle::storey($walls, $points, [], $figures);

        self::assertLessThan(0.001, $again->largestMm);
    }

    #[DataProvider('seeds')]
    public function testWallsMeantLevelPlumbAndParallelAreAndFiguresHold(int $seed): void
    {
        [$walls, $points] = self::plan(self::perturbed($seed, 6.0));
        $n = self::after($points, Settle::storey($walls, $points, [], [new Held('overall', 'west', Line::Right, 'east', Line::Right, 7300.0), new Held('clear', 'west', Line::Left, 'middle', Line::Left, 3000.0)])->moves);

        foreach ([['a', 'b', 1], ['c', 'd', 1], ['b', 'c', 0], ['d', 'a', 0], ['e', 'f', 0], ['g', 'h', 0], ['a', 'e', 1], ['d', 'f', 1]] as [$p, $q, $axis]) {
            self::assertEqualsWithDelta($n[$p][$axis], $n[$q][$axis], 1e-6);
        }
        self::assertEqualsWithDelta(7300.0 - 100.0, $n['b'][0] - $n['a'][0], 1e-6);
        self::assertEqualsWithDelta(3000.0 + 100.0, $n['e'][0] - $n['a'][0], 1e-6);
    }

    public function testLeaningWallsMeantParallelAreParallel(): void
    {
        $nodes = ['a' => [0, 0], 'b' => [4000, 3000], 'c' => [-1200, 1600], 'd' => [2810, 4580], 'e' => [1000, 749]];
        $points = array_map(static fn (array $p): Point => new Point(...$p), $nodes);
        $walls = [];
        foreach (['one' => ['a', 'b'], 'two' => ['c', 'd'], 'stub' => ['e', 'c']] as $id => [$from, $to]) {
            $walls[] = new JoinedWall(new Wall($id, $points[$from], $points[$to], 100.0), $from, $to);
        }
        $settled = Settle::storey($walls, $points, [], [new Held('apart', 'one', Line::Left, 'two', Line::Right, 1900.0)]);
        $n = self::after($points, $settled->moves);
        $angle = static fn (string $p, string $q): float => atan2($n[$q][1] - $n[$p][1], $n[$q][0] - $n[$p][0]);

        self::assertEqualsWithDelta($angle('a', 'b'), $angle('c', 'd'), 1e-6);
        // The stub's end stays on the wall it ends on.
        self::assertEqualsWithDelta($angle('a', 'b'), $angle('a', 'e'), 1e-5);
        $u = $angle('a', 'b');
        self::assertEqualsWithDelta(2000.0, ($n['c'][1] - $n['a'][1]) * cos($u) - ($n['c'][0] - $n['a'][0]) * sin($u), 1e-3);
    }

    /** A plan put off by what its ± says comes back within it: nineteen in twenty coordinates within two standard deviations. */
    public function testAKnownPlanPutOffComesBackWithinItsPlusMinus(): void
    {
        [$within, $all] = [0, 0];
        for ($seed = 100; $seed < 200; ++$seed) {
            [$walls, $points] = self::plan(self::perturbed($seed, 5.0));
            $settled = Settle::storey($walls, $points, array_map(static fn (): float => 5.0, self::NODES));
            $n = self::after($points, $settled->moves);
            foreach (['a', 'c', 'e', 'f'] as $name) {
                foreach ([0, 1] as $axis) {
                    ++$all;
                    $within += abs($n[$name][$axis] - self::NODES[$name][$axis]) <= 2.0 * $settled->sigmas[$name][$axis] ? 1 : 0;
                }
            }
            self::assertLessThan(5.0 / sqrt(2.0), $settled->sigmas['a'][1]);
        }
        self::assertGreaterThan(0.93, $within / $all);
        self::assertLessThan(0.985, $within / $all);
    }

    public function testAChainThatContradictsItsOverallIsNamedWithItsCulprit(): void
    {
        [$walls, $points] = self::plan(self::NODES);
        $settled = Settle::storey($walls, $points, [], [
            new Held('overall', 'west', Line::Right, 'east', Line::Right, 7300.0),
            new Held('left', 'west', Line::Right, 'middle', Line::Left, 3150.0 - 100.0 + 0.0),
            new Held('right', 'middle', Line::Left, 'east', Line::Right, 4190.0),
        ]);

        self::assertCount(1, $settled->contradictions);
        $c = $settled->contradictions[0];
        // left 3050 + right 4190 = 7240 against 7300.
        self::assertEqualsWithDelta(60.0, abs($c->byMm), 1e-6);
        self::assertEqualsCanonicalizing(['overall', 'left', 'right'], [$c->figure, ...$c->chain]);
        self::assertNotSame('overall', $c->figure, 'the overall figure outranks its parts');
        self::assertContains($c->culprit, ['left', 'right']);
        self::assertContains('overall', $settled->held);
    }

    public function testFiguresThatDisagreeWithinTheirRoundingAreNoContradiction(): void
    {
        [$walls, $points] = self::plan(self::NODES);
        $settled = Settle::storey($walls, $points, [], [
            new Held('overall', 'west', Line::Right, 'east', Line::Right, 7300.0, 5.0),
            new Held('left', 'west', Line::Right, 'middle', Line::Left, 3100.0, 5.0),
            new Held('right', 'middle', Line::Left, 'east', Line::Right, 4190.0, 5.0),
        ]);

        self::assertSame([], $settled->contradictions);
        self::assertCount(3, $settled->held);
    }
}
