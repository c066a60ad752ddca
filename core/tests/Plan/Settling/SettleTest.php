<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan\Settling;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Figure;
use Plinth\Core\Plan\Model\Line;
use Plinth\Core\Plan\Settling\Contradiction;
use Plinth\Core\Plan\Settling\Unheld;
use Plinth\Core\Plan\Settling\Why;

/** Settling is the same wherever a storey lies and whichever way it is turned. */
final class SettleTest extends TestCase
{
    private const FAR = [650_000_000.0, 220_000_000.0];

    /** @return iterable<string, array{array{float, float, float}}> */
    public static function twins(): iterable
    {
        yield 'as drawn' => [[0.0, 0.0, 0.0]];
        yield 'turned by 30°' => [[30.0, 0.0, 0.0]];
        yield 'turned by 90°' => [[90.0, 0.0, 0.0]];
        yield 'turned by 17.3°' => [[17.3, 0.0, 0.0]];
        yield 'far out' => [[0.0, ...self::FAR]];
        yield 'far out and turned by 17.3°' => [[17.3, ...self::FAR]];
    }

    /** @return iterable<string, array{int, array{float, float, float}}> */
    public static function seeds(): iterable
    {
        $twins = array_values(iterator_to_array(self::twins()));
        for ($seed = 1; $seed <= 120; ++$seed) {
            yield "seed $seed" => [$seed, $twins[$seed % \count($twins)][0]];
        }
    }

    /** @return list<Figure> */
    private static function figures(): array
    {
        return [
            new Figure('overall', 'west', Line::Right, 'east', Line::Right, 7300.0),
            new Figure('clear', 'west', Line::Left, 'middle', Line::Left, 3000.0),
        ];
    }

    /** @param array{float, float, float} $twin */
    #[DataProvider('twins')]
    public function testWhatHoldsAlreadyDoesNotMove(array $twin): void
    {
        $settled = Storey::rooms()->twin($twin)->settled([new Figure('clear', 'west', Line::Left, 'middle', Line::Left, 3000.0)]);

        self::assertSame([], $settled->moves);
        self::assertSame(0, $settled->straightened);
        self::assertSame(['clear'], $settled->held);
    }

    /**
     * One end was put off: what is not tied to it stays to the last bit, in a way of its own too.
     *
     * @param array{float, float, float} $twin
     */
    #[DataProvider('twins')]
    public function testWhatHoldsBesideWhatDoesNotStays(array $twin): void
    {
        $storey = Storey::rooms();
        $settled = $storey->at(['f' => [3112.0, 5000.0]] + $storey->nodes)->twin($twin)->settled();

        self::assertEqualsCanonicalizing(['e', 'f'], array_keys($settled->moves), 'Only the two ends of the wall that was not plumb.');
        self::assertEqualsWithDelta(6.0, $settled->largestMm, 1e-4);
        self::assertSame(1, $settled->straightened);
    }

    /**
     * A grid of rooms that holds, with figures, of which some corners were put off: only what lies on their walls' lines moves.
     *
     * @param array{float, float, float} $twin
     */
    #[DataProvider('seeds')]
    public function testOnlyWhatDoesNotHoldAndWhatIsTiedToItMoves(int $seed, array $twin): void
    {
        mt_srand($seed);
        $exact = Storey::grid(6, 0.0);
        [$nodes, $rows, $columns] = [$exact->nodes, [], []];
        for ($n = mt_rand(1, 3); $n > 0; --$n) {
            [$i, $j] = [mt_rand(0, 6), mt_rand(0, 6)];
            $nodes["n$i.$j"] = [$nodes["n$i.$j"][0] + mt_rand(-20, 20), $nodes["n$i.$j"][1] + mt_rand(-20, 20)];
            [$columns[$i], $rows[$j]] = [true, true];
        }
        // The rows are held by figures, so that none of them carries the next along.
        $figures = array_map(
            static fn (int $j): Figure => new Figure("f$j", "h0.$j", Line::Centre, 'h0.'.($j + 1), Line::Centre, 3000.0),
            array_values(array_filter(range(0, 5), static fn (int $j): bool => !isset($rows[$j]) && !isset($rows[$j + 1]))),
        );
        $settled = $exact->at($nodes)->twin($twin)->settled($figures);
        foreach (array_keys($settled->moves) as $name) {
            [$i, $j] = array_map(intval(...), explode('.', substr($name, 1)));
            self::assertTrue(isset($columns[$i]) || isset($rows[$j]), "seed $seed: $name");
        }
        self::assertCount(\count($figures), $settled->held);
    }

    /** @param array{float, float, float} $twin */
    #[DataProvider('seeds')]
    public function testSettlingTwiceIsSettlingOnce(int $seed, array $twin): void
    {
        $storey = Storey::rooms($seed, 8.0)->twin($twin);
        $once = $storey->after($storey->settled(self::figures()));

        self::assertLessThan(0.001, $storey->at($once)->settled(self::figures())->largestMm);
    }

    /** @param array{float, float, float} $twin */
    #[DataProvider('seeds')]
    public function testWallsMeantToAreSquareAndFiguresHold(int $seed, array $twin): void
    {
        $storey = Storey::rooms($seed, 6.0)->twin($twin);
        $settled = $storey->settled(self::figures());
        $n = $storey->after($settled);
        $run = static fn (string $p, string $q): array => [$n[$q][0] - $n[$p][0], $n[$q][1] - $n[$p][1]];
        [$dx, $dy] = $run('a', 'b');
        $turn = atan2($dy, $dx);
        // Level where the grid is near or the set square; elsewhere the way that the walls show.
        self::assertEqualsWithDelta(0.0, $turn, 17.3 === $twin[0] ? 0.003 : 1e-11);
        $across = static function (string $p, string $q, int $axis) use ($run, $turn): float {
            [$dx, $dy] = $run($p, $q);

            return 0 === $axis ? $dx * cos($turn) + $dy * sin($turn) : $dy * cos($turn) - $dx * sin($turn);
        };
        foreach ([
            ['a', 'b', 1], ['c', 'd', 1], ['b', 'c', 0], ['d', 'a', 0], ['e', 'f', 0], ['g', 'h', 0], ['a', 'e', 1],
            ['d', 'f', 1],
        ] as [$p, $q, $axis]) {
            self::assertEqualsWithDelta(0.0, $across($p, $q, $axis), 2e-6);
        }
        self::assertEqualsWithDelta(7300.0 - 100.0, $across('a', 'b', 0), 2e-6);
        self::assertEqualsWithDelta(3000.0 + 100.0, $across('a', 'e', 0), 2e-6);
        self::assertEqualsCanonicalizing(['overall', 'clear'], $settled->held);
    }

    /** Turned by what a set square gives, moved, mirrored or with other names: the same moves, ± and contradictions. */
    public function testTheSameIsFoundWhicheverWayAStoreyIsTurned(): void
    {
        for ($seed = 1; $seed <= 60; ++$seed) {
            $storey = Storey::rooms($seed, 6.0);
            $figures = [...self::figures(), new Figure('rest', 'middle', Line::Right, 'east', Line::Left, 4015.0)];
            $plain = $storey->settled($figures);
            $there = $storey->after($plain);
            foreach ([[30.0, 0.0, 0.0], [60.0, 0.0, 0.0], [180.0, 5e6, -3e6], [75.0, ...self::FAR]] as $twin) {
                $settled = $storey->twin($twin)->settled($figures);
                foreach ($storey->twin($twin)->after($settled) as $name => $p) {
                    self::assertEqualsWithDelta($there[$name], $p, 2e-6, "seed $seed, turned by $twin[0]°");
                    self::assertEqualsWithDelta(hypot(...$plain->sigmas[$name]), hypot(...$settled->sigmas[$name]), 1e-6);
                }
                self::assertEqualsCanonicalizing($plain->held, $settled->held);
                self::assertEqualsWithDelta(
                    array_map(static fn (Contradiction $c): array => [$c->figure, $c->byMm, $c->culprit], $plain->contradictions),
                    array_map(static fn (Contradiction $c): array => [$c->figure, $c->byMm, $c->culprit], $settled->contradictions),
                    1e-5,
                );
            }
            foreach ([strrev(...), static fn (string $name): string => (string) crc32($name)] as $rename) {
                $renamed = $storey->renamed($rename);
                $settled = $renamed->settled(
                    array_map(
                        static fn (Figure $h): Figure => new Figure($h->id, $rename($h->a), $h->aSide, $rename($h->b), $h->bSide, $h->mm),
                        $figures,
                    ),
                );
                self::assertEqualsWithDelta(array_values($there), array_values($renamed->after($settled)), 1e-6);
            }
            // Two ways that no set square gives find the same of each other.
            [$one, $other] = [$storey->twin([17.3, 0.0, 0.0]), $storey->twin([38.9, ...self::FAR])];
            self::assertEqualsWithDelta($one->after($one->settled($figures)), $other->after($other->settled($figures)), 1e-4);
        }
    }

    /** @param array{float, float, float} $twin */
    #[DataProvider('twins')]
    public function testLeaningWallsMeantParallelAreAndEndsStayOnThem(array $twin): void
    {
        $storey = (new Storey(
            ['a' => [0.0, 0.0], 'b' => [4000.0, 3000.0], 'c' => [-1200.0, 1600.0], 'd' => [2810.0, 4580.0], 'e' => [1000.0, 749.0]],
            ['one' => ['a', 'b'], 'two' => ['c', 'd'], 'stub' => ['e', 'c']],
        ))->twin($twin);
        $settled = $storey->settled([new Figure('apart', 'one', Line::Left, 'two', Line::Right, 1900.0)]);
        $n = $storey->after($settled);
        $angle = static fn (string $p, string $q): float => atan2($n[$q][1] - $n[$p][1], $n[$q][0] - $n[$p][0]);

        self::assertEqualsWithDelta($angle('a', 'b'), $angle('c', 'd'), 1e-9);
        self::assertEqualsWithDelta($angle('a', 'b'), $angle('a', 'e'), 1e-9);
        $u = $angle('a', 'b');
        self::assertEqualsWithDelta(2000.0, ($n['c'][1] - $n['a'][1]) * cos($u) - ($n['c'][0] - $n['a'][0]) * sin($u), 1e-6);
        self::assertSame(['apart'], $settled->held);
    }

    /**
     * An end on a wall that is like no other stays on it, and turns it as little as may be.
     *
     * @param array{float, float, float} $twin
     */
    #[DataProvider('twins')]
    public function testAnEndStaysOnAWallThatIsLikeNoOther(array $twin): void
    {
        $storey = (new Storey(
            ['a' => [0.0, 0.0], 'b' => [8000.0, 3100.0], 'c' => [4000.0, 1541.0], 'd' => [7000.0, -4000.0]],
            ['rafter' => ['a', 'b'], 'post' => ['c', 'd']],
        ))->twin($twin);
        $n = $storey->after($storey->settled());

        self::assertEqualsWithDelta(
            0.0,
            ($n['c'][1] - $n['a'][1]) * ($n['b'][0] - $n['a'][0]) - ($n['c'][0] - $n['a'][0]) * ($n['b'][1] - $n['a'][1]),
            1.0,
            'within 0.0001 mm',
        );
        // In the middle of the wall: of its offset δ the end takes two thirds, either end of the wall a third of the other way.
        $delta = (1541.0 * 8000.0 - 4000.0 * 3100.0) / hypot(8000.0, 3100.0);
        $moved = array_map(
            static fn (string $k): float => hypot($n[$k][0] - $storey->nodes[$k][0], $n[$k][1] - $storey->nodes[$k][1]),
            ['c', 'a', 'b'],
        );
        self::assertEqualsWithDelta([abs($delta) * 2 / 3, abs($delta) / 3, abs($delta) / 3], $moved, 0.02);
        self::assertSame([$storey->nodes['d'], 1], [$n['d'], 1]);
    }

    /**
     * Nineteen in twenty coordinates within two standard deviations, and their squares on the average one, in every direction.
     *
     * @param array{float, float, float} $twin
     */
    #[DataProvider('twins')]
    public function testAKnownPlanPutOffComesBackWithinItsPlusMinus(array $twin): void
    {
        [$within, $squares, $all] = [0, 0.0, 0];
        $truth = Storey::rooms();
        for ($seed = 100; $seed < 300; ++$seed) {
            $storey = Storey::rooms($seed, 5.0)->twin($twin);
            $settled = $storey->settled(0 === $seed % 2 ? self::figures() : []);
            foreach ($storey->after($settled) as $name => $p) {
                $off = [$p[0] - $truth->nodes[$name][0], $p[1] - $truth->nodes[$name][1]];
                [$c, $s] = [cos(deg2rad($twin[0])), sin(deg2rad($twin[0]))];
                foreach ([$c * $off[0] - $s * $off[1], $s * $off[0] + $c * $off[1]] as $axis => $by) {
                    ++$all;
                    $ratio = $by / $settled->sigmas[$name][$axis];
                    $within += abs($ratio) <= 2.0 ? 1 : 0;
                    $squares += $ratio ** 2;
                }
            }
        }
        self::assertEqualsWithDelta(0.954, $within / $all, 0.015);
        self::assertEqualsWithDelta(1.0, sqrt($squares / $all), 0.05);
    }

    /** @param array{float, float, float} $twin */
    #[DataProvider('twins')]
    public function testTwoFiguresBetweenTheSameWallsContradictEachOther(array $twin): void
    {
        $settled = Storey::rooms()->twin($twin)->settled([
            new Figure('first', 'middle', Line::Right, 'east', Line::Left, 4000.0),
            new Figure('second', 'middle', Line::Right, 'east', Line::Left, 4100.0),
        ]);

        self::assertSame(['first'], $settled->held, 'The one that the tracing shows.');
        self::assertSame([], $settled->moves);
        self::assertCount(1, $settled->contradictions);
        $c = $settled->contradictions[0];
        self::assertSame(['second', ['first'], 'second'], [$c->figure, $c->chain, $c->culprit]);
        self::assertEqualsWithDelta(100.0, $c->byMm, 1e-5);
    }

    /** @param array{float, float, float} $twin */
    #[DataProvider('twins')]
    public function testAChainThatContradictsItsOverallIsNamedWithItsCulprit(array $twin): void
    {
        $settled = Storey::rooms()->twin($twin)->settled([
            new Figure('overall', 'west', Line::Right, 'east', Line::Right, 7300.0),
            new Figure('left', 'west', Line::Right, 'middle', Line::Left, 3050.0),
            new Figure('right', 'middle', Line::Left, 'east', Line::Right, 4190.0),
        ]);

        self::assertCount(1, $settled->contradictions);
        $c = $settled->contradictions[0];
        // left 3050 + right 4190 = 7240 against 7300.
        self::assertEqualsWithDelta(60.0, abs($c->byMm), 1e-5);
        self::assertEqualsCanonicalizing(['overall', 'left', 'right'], [$c->figure, ...$c->chain]);
        self::assertNotSame('overall', $c->figure, 'the overall figure outranks its parts');
        self::assertContains($c->culprit, ['left', 'right']);
        self::assertContains('overall', $settled->held);
    }

    /** @param array{float, float, float} $twin */
    #[DataProvider('twins')]
    public function testFiguresThatDisagreeWithinTheirRoundingShareIt(array $twin): void
    {
        $storey = Storey::rooms()->twin($twin);
        $settled = $storey->settled([
            new Figure('overall', 'west', Line::Right, 'east', Line::Right, 7300.0, 5.0),
            new Figure('left', 'west', Line::Right, 'middle', Line::Left, 3100.0, 5.0),
            new Figure('right', 'middle', Line::Left, 'east', Line::Right, 4190.0, 5.0),
        ]);
        $n = $storey->after($settled);

        self::assertSame([], $settled->contradictions);
        self::assertCount(3, $settled->held);
        // Ten millimetres among three that were rounded alike, walls of 100 mm.
        self::assertEqualsWithDelta(7300.0 - 10.0 / 3.0, $n['b'][0] - $n['a'][0] + 100.0, 1e-5);
        self::assertEqualsWithDelta(3100.0 + 10.0 / 3.0, $n['e'][0] - $n['a'][0], 1e-5);
    }

    /** @param array{float, float, float} $twin */
    #[DataProvider('twins')]
    public function testAFigureBetweenWallsThatRunApartIsHeldByNothing(array $twin): void
    {
        $storey = (new Storey(
            ['a' => [0.0, 0.0], 'b' => [6000.0, 0.0], 'c' => [0.0, 3000.0], 'd' => [6000.0, 3599.0]],
            ['one' => ['a', 'b'], 'two' => ['c', 'd']],
        ))->twin($twin);
        $settled = $storey->settled([
            new Figure('apart', 'one', Line::Left, 'two', Line::Right, 3500.0),
            new Figure('gone', 'one', Line::Left, 'nowhere', Line::Left, 10.0),
        ]);

        self::assertSame([[], [], []], [$settled->moves, $settled->held, $settled->contradictions]);
        self::assertSame(
            [['apart', Why::NotParallel], ['gone', Why::WallGone]],
            array_map(static fn (Unheld $u): array => [$u->figure, $u->why], $settled->unheld),
        );
        self::assertEqualsWithDelta(rad2deg(atan2(599.0, 6000.0)), $settled->unheld[0]->degrees, 1e-6);
    }

    public function testAFigureToACurvedWallIsHeldByNothing(): void
    {
        $storey = new Storey(
            ['a' => [0.0, 0.0], 'b' => [6000.0, 0.0], 'c' => [0.0, 3000.0], 'd' => [6000.0, 3000.0]],
            ['one' => ['a', 'b'], 'bow' => ['c', 'd', 400.0]],
        );

        self::assertSame(
            Why::Curved,
            $storey->settled([new Figure('to the bow', 'one', Line::Left, 'bow', Line::Right, 3000.0)])->unheld[0]->why,
        );
    }

    /** Four walls like no others, a figure between two of them that cannot be: nothing may be said to hold that was not measured. */
    public function testWhatIsSaidToHoldWasMeasured(): void
    {
        for ($seed = 1; $seed <= 300; ++$seed) {
            $storey = Storey::rooms($seed, [6.0, 20.0, 60.0, 150.0][$seed % 4])->twin([[0.0, 30.0, 17.3][$seed % 3], 0.0, 0.0]);
            $between = [
                ['west', 'east'], ['west', 'middle'], ['middle', 'east'], ['east', 'bay2'], ['south', 'north'], ['bay1', 'bay3'],
                ['bay1', 'north'],
            ];
            $figures = array_map(
                static fn (array $pair, int $k): Figure => new Figure(
                    "figure $k",
                    $pair[0],
                    Line::Centre,
                    $pair[1],
                    Line::Centre,
                    500.0 + mt_rand(0, 8000),
                ),
                $between,
                array_keys($between),
            );
            $settled = $storey->settled($figures);
            $n = $storey->after($settled);
            $ends = [
                'south' => ['a', 'b'],
                'east' => ['b', 'c'],
                'north' => ['c', 'd'],
                'west' => ['d', 'a'],
                'middle' => ['e', 'f'],
                'bay2' => ['g', 'h'],
                'bay1' => ['b', 'g'],
                'bay3' => ['h', 'c'],
            ];
            foreach ($figures as $figure) {
                if (!\in_array($figure->id, $settled->held, true)) {
                    continue;
                }
                foreach ($ends[$figure->b] as $q) {
                    [[$ax, $ay], [$bx, $by]] = array_map(static fn (string $k): array => $n[$k], $ends[$figure->a]);
                    $mm = abs(($n[$q][0] - $ax) * ($by - $ay) - ($n[$q][1] - $ay) * ($bx - $ax)) / hypot($bx - $ax, $by - $ay);
                    self::assertEqualsWithDelta($figure->mm, $mm, 0.51, "seed $seed: $figure->id");
                }
            }
            self::assertCount(
                \count($figures),
                [...$settled->held, ...$settled->contradictions, ...$settled->unheld],
                'Something is said of each.',
            );
        }
    }

    /**
     * @param array{float, float, float} $twin
     * @param array<array-key, array{float, float}> $nodes
     * @param array<array-key, array{string, string}> $walls
     *
     * @return array<array-key, Point>
     */
    private static function movesOf(array $twin, array $nodes, array $walls): array
    {
        return (new Storey($nodes, $walls))->twin($twin)->settled()->moves;
    }

    /** @param array{float, float, float} $twin */
    #[DataProvider('twins')]
    public function testHardCases(array $twin): void
    {
        self::assertSame([], self::movesOf($twin, [], []));
        self::assertSame([], self::movesOf($twin, ['a' => [0.0, 0.0]], []));
        self::assertSame(
            [],
            self::movesOf($twin, ['a' => [0.0, 0.0], 'b' => [0.0, 0.0]], ['nothing' => ['a', 'b'], 'itself' => ['a', 'a']]),
        );
        // Twice the same wall, and one upon both.
        self::assertSame(
            [],
            self::movesOf(
                $twin,
                ['a' => [0.0, 0.0], 'b' => [5000.0, 0.0], 'c' => [0.0, 0.0], 'd' => [5000.0, 0.0]],
                ['one' => ['a', 'b'], 'again' => ['c', 'd'], 'back' => ['d', 'a']],
            ),
        );
        // Names that are numbers, one way round and the other.
        $moves = self::movesOf(
            $twin,
            ['1' => [0.0, 0.0], '07' => [5000.0, 6.0], '7' => [5000.0, 3000.0], '0' => [0.0, 3006.0]],
            ['7' => ['1', '07'], '0' => ['07', '7'], '1' => ['7', '0'], '-1' => ['0', '1']],
        );
        self::assertEqualsCanonicalizing(['1', '07', '7', '0'], array_map(strval(...), array_keys($moves)));
    }

    /** A full circle of walls a degree and a bit apart: each is like the next, and none like all. */
    public function testWallsAllWaysRound(): void
    {
        [$nodes, $walls] = [[], []];
        for ($k = 0; $k < 300; ++$k) {
            $nodes["n$k"] = [20_000.0 * cos(deg2rad(1.2 * $k)), 20_000.0 * sin(deg2rad(1.2 * $k))];
            $walls["w$k"] = ["n$k", 'n'.($k + 1) % 300];
        }
        $storey = new Storey(Storey::putOff($nodes, 3, 2.0), $walls);
        $settled = $storey->settled();

        self::assertGreaterThan(30, $settled->straightened);
        self::assertLessThan(20.0, $settled->largestMm, 'Each is 419 mm long: nothing is carried round by its neighbours.');
    }
}
