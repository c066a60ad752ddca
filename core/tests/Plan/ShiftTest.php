<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Editing\Exception\UnusableEdit;
use Plinth\Core\Plan\Editing\Rework;
use Plinth\Core\Plan\Editing\Shift;
use Plinth\Core\Plan\Model\JoinedWall;
use Plinth\Core\Plan\Model\Line;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Tests\Fitting\Noise;

/** A wall that is moved takes along what is joined to it, and no angle changes that need not. */
final class ShiftTest extends TestCase
{
    public function testNeighboursKeepTheirDirectionsAndBecomeLongerOrShorter(): void
    {
        // A trapezium: the east side runs at a slant.
        [$shift, $nodes] = $this->ring([[0, 0], [6000, 0], [7000, 4000], [0, 4000]]);
        $moved = $shift->across('w2', -800.0);
        self::assertEqualsWithDelta([7200.0, 4800.0], $moved['n2']->toArray(), 1e-9);
        self::assertEqualsWithDelta([0.0, 4800.0], $moved['n3']->toArray(), 1e-9);
        self::assertArrayNotHasKey('n0', $moved);
        self::assertCount(4, $nodes);
    }

    public function testADistanceBetweenFacesComesTrueWhicheverWallIsHeld(): void
    {
        for ($seed = 1; $seed <= 40; ++$seed) {
            Noise::seed($seed);
            $turn = Noise::uniform(0, 6.28);
            $at = static fn (float $x, float $y): array => [$x * cos($turn) - $y * sin($turn), $x * sin($turn) + $y * cos($turn)];
            $corners = [$at(0, 0), $at(6000, 0), $at(6000, 4000), $at(0, 4000)];
            foreach (['w0', 'w2'] as $moves) {
                foreach ([Line::Left, Line::Right, Line::Centre] as $side) {
                    [$shift, $nodes] = $this->ring($corners, Noise::uniform(100, 400));
                    $mm = Noise::uniform(2500, 6000);
                    $moved = $shift->apart('w0', $side, 'w2', $side, $mm, $moves) + $nodes;
                    $walls = $this->walls($moved, 4, $this->thickness);
                    self::assertEqualsWithDelta($mm, Shift::distance($walls[0], $side, $walls[2], $side), 1e-6);
                    self::assertEqualsWithDelta(
                        0.0,
                        sin(2.0 * (atan2($walls[1]->to->y - $walls[1]->from->y, $walls[1]->to->x - $walls[1]->from->x) - $turn)),
                        1e-9,
                        'It is still square.',
                    );
                }
            }
        }
    }

    public function testWhatGoesStraightOnGoesAlongAndWhatEndsOnItFollows(): void
    {
        $nodes = [
            'a' => new Point(0, 0),
            'b' => new Point(3000, 0),
            'c' => new Point(6000, 0),
            'd' => new Point(1500, 0),
            'e' => new Point(1500, 3000),
            'f' => new Point(4500, 60),
            'g' => new Point(5500, 2060),
        ];
        $shift = new Shift([
            $this->joined('one', 'a', 'b', $nodes), $this->joined('two', 'b', 'c', $nodes),
            $this->joined('tee', 'd', 'e', $nodes), $this->joined('slant', 'f', 'g', $nodes),
        ], $nodes);
        $moved = $shift->across('one', 500.0);
        self::assertSame([500.0, 500.0, 500.0], [$moved['a']->y, $moved['b']->y, $moved['c']->y]);
        self::assertEqualsWithDelta([1500.0, 500.0], $moved['d']->toArray(), 1e-9);
        self::assertEqualsWithDelta(
            [4720.0, 500.0],
            $moved['f']->toArray(),
            1e-9,
            'Along its own slope, from inside the body on to the centre line.',
        );
    }

    public function testALengthIsTypedFromEitherEndAndWhatMeetsTheOtherFollows(): void
    {
        [$shift] = $this->ring([[0, 0], [6000, 0], [6000, 4000], [0, 4000]]);
        self::assertSame([6250.0, 0.0], $shift->asLongAs('w0', 6250.0, true)['n1']->toArray());
        self::assertSame([-250.0, 0.0], $shift->asLongAs('w0', 6250.0, false)['n0']->toArray());
    }

    public function testAStepThatLeavesAWallNoLengthIsRefused(): void
    {
        [$shift] = $this->ring([[0, 0], [6000, 0], [6000, 4000], [0, 4000]]);
        $this->expectException(UnusableEdit::class);
        $shift->across('w2', 4000.0);
    }

    public function testRoomsKeepTheirNumberWhenAWallIsMovedALittle(): void
    {
        for ($seed = 700; $seed < 720; ++$seed) {
            $walls = Plans::shaken($seed);
            $nodes = [];
            $joined = [];
            foreach ($walls as $wall) {
                foreach ([$wall->from, $wall->to] as $p) {
                    $nodes[\sprintf('%.6f,%.6f', $p->x, $p->y)] = $p;
                }
                $joined[] = new JoinedWall(
                    $wall,
                    \sprintf('%.6f,%.6f', $wall->from->x, $wall->from->y),
                    \sprintf('%.6f,%.6f', $wall->to->x, $wall->to->y),
                );
            }
            $moved = (new Shift($joined, $nodes))->across($walls[5]->id, 120.0) + $nodes;
            $after = array_map(
                static fn (JoinedWall $j): Wall => new Wall($j->wall->id, $moved[$j->from], $moved[$j->to], $j->wall->thickness),
                $joined,
            );
            self::assertSameSize(
                Derivation::of(Plans::storey($walls))->regions,
                Derivation::of(Plans::storey($after))->regions,
                "seed $seed",
            );
        }
    }

    public function testAnArcIsSplitJoinedAndCopiedOnItsCircle(): void
    {
        // A quarter circle of radius 3 m about the origin, clockwise: its rise is r (1 − cos 45°), to the left.
        $wall = new Wall('w', new Point(0, 3000), new Point(3000, 0), 200.0, rise: 3000 * (1 - cos(\M_PI / 4)));
        $parts = Rework::split($wall, $wall->length() / 3.0);
        self::assertEqualsWithDelta([3000 * cos(\M_PI / 3), 3000 * sin(\M_PI / 3)], $parts['at']->toArray(), 1e-9);
        $first = new Wall('a', $wall->from, $parts['at'], 200.0, rise: $parts['first']);
        $second = new Wall('b', $parts['at'], $wall->to, 200.0, rise: $parts['second']);
        self::assertEqualsWithDelta($wall->length(), $first->length() + $second->length(), 1e-9);
        self::assertEqualsWithDelta($wall->rise, Rework::joined($first, $second), 1e-9);
        $beside = Rework::beside($wall, 500.0);
        self::assertEqualsWithDelta([0.0, 3500.0], $beside['from']->toArray(), 1e-9, 'Left of a clockwise arc is outside.');
        self::assertEqualsWithDelta(3500 * (1 - cos(\M_PI / 4)), $beside['rise'], 1e-9);
        $this->expectException(UnusableEdit::class);
        Rework::beside($wall, -3000.0);
    }

    private float $thickness = 200.0;

    /**
     * @param list<array{float|int, float|int}> $corners
     *
     * @return array{Shift, array<string, Point>}
     */
    private function ring(array $corners, float $thickness = 200.0): array
    {
        $this->thickness = $thickness;
        $nodes = [];
        foreach ($corners as $i => [$x, $y]) {
            $nodes["n$i"] = new Point($x, $y);
        }
        $n = \count($corners);
        $joined = array_map(
            static fn (Wall $w, int $i): JoinedWall => new JoinedWall($w, "n$i", 'n'.(($i + 1) % $n)),
            $this->walls($nodes, $n, $thickness),
            range(0, $n - 1),
        );

        return [new Shift($joined, $nodes), $nodes];
    }

    /**
     * @param array<string, Point> $nodes
     *
     * @return list<Wall>
     */
    private function walls(array $nodes, int $n, float $thickness): array
    {
        return array_map(
            static fn (int $i): Wall => new Wall("w$i", $nodes["n$i"], $nodes['n'.(($i + 1) % $n)], $thickness),
            range(0, $n - 1),
        );
    }

    /** @param array<string, Point> $nodes */
    private function joined(string $id, string $from, string $to, array $nodes): JoinedWall
    {
        return new JoinedWall(new Wall($id, $nodes[$from], $nodes[$to], 200.0), $from, $to);
    }
}
