<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan\Settling;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Figure;
use Plinth\Core\Plan\Model\JoinedWall;
use Plinth\Core\Plan\Model\Line;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Settling\Settle;
use Plinth\Core\Plan\Settling\Settled;

/** A storey to be settled, lying somewhere and turned some way, and looked at as if it lay at the origin and were not turned. */
final readonly class Storey
{
    /**
     * @param array<array-key, array{float, float}> $nodes mm
     * @param array<array-key, array{string, string}|array{string, string, float}> $walls from, to and rise
     * @param array<array-key, float> $sigmas mm
     */
    public function __construct(
        public array $nodes,
        private array $walls,
        private array $sigmas = [],
        private float $degrees = 0.0,
        private float $x = 0.0,
        private float $y = 0.0,
        private float $thickness = 100.0,
    ) {
    }

    /** Two rooms of 3 and 4 m beside each other, and a bay at 45°; every coordinate off by so much. */
    public static function rooms(int $seed = 0, float $sigma = 0.0): self
    {
        $nodes = [
            'a' => [0.0, 0.0],
            'b' => [7200.0, 0.0],
            'c' => [7200.0, 5000.0],
            'd' => [0.0, 5000.0],
            'e' => [3100.0, 0.0],
            'f' => [3100.0, 5000.0],
            'g' => [8200.0, 1000.0],
            'h' => [8200.0, 4000.0],
        ];
        $walls = [
            'south' => ['a', 'b'],
            'east' => ['b', 'c'],
            'north' => ['c', 'd'],
            'west' => ['d', 'a'],
            'middle' => ['e', 'f'],
            'bay1' => ['b', 'g'],
            'bay2' => ['g', 'h'],
            'bay3' => ['h', 'c'],
        ];

        return new self(
            self::putOff($nodes, $seed, $sigma),
            $walls,
            0.0 === $sigma ? [] : array_map(static fn (): float => $sigma, $nodes),
        );
    }

    /** Rooms of 4 by 3 m, so many in a row and as many rows, every corner so far off, mm. */
    public static function grid(int $across, float $sigma): self
    {
        [$nodes, $walls] = [[], []];
        for ($i = 0; $i <= $across; ++$i) {
            for ($j = 0; $j <= $across; ++$j) {
                $nodes["n$i.$j"] = [$i * 4000.0, $j * 3000.0];
                if ($i < $across) {
                    $walls["h$i.$j"] = ["n$i.$j", 'n'.($i + 1).".$j"];
                }
                if ($j < $across) {
                    $walls["v$i.$j"] = ["n$i.$j", "n$i.".($j + 1)];
                }
            }
        }

        return new self(self::putOff($nodes, 7, $sigma), $walls);
    }

    /** @return list<Figure> so many clear widths in it */
    public static function gridFigures(int $across, int $count): array
    {
        return array_map(
            static fn (int $k): Figure => new Figure(
                "f$k",
                'v'.$k % $across.'.'.intdiv($k, $across) % $across,
                Line::Right,
                'v'.($k % $across + 1).'.'.intdiv($k, $across) % $across,
                Line::Left,
                3900.0,
            ),
            range(0, $count - 1),
        );
    }

    /**
     * @param array<array-key, array{float, float}> $nodes
     *
     * @return array<array-key, array{float, float}>
     */
    public static function putOff(array $nodes, int $seed, float $sigma): array
    {
        mt_srand($seed);
        $normal = static fn (): float => sqrt(-2.0 * log(max(
            1e-12,
            mt_rand() / mt_getrandmax(),
        ))) * cos(2.0 * \M_PI * mt_rand() / mt_getrandmax());

        return array_map(static fn (array $p): array => [$p[0] + $sigma * $normal(), $p[1] + $sigma * $normal()], $nodes);
    }

    /** @param array{float, float, float} $twin turned by degrees, moved by x and y */
    public function twin(array $twin): self
    {
        return new self($this->nodes, $this->walls, $this->sigmas, ...[...$twin, $this->thickness]);
    }

    /** @param array<array-key, array{float, float}> $nodes */
    public function at(array $nodes): self
    {
        return new self($nodes, $this->walls, $this->sigmas, $this->degrees, $this->x, $this->y, $this->thickness);
    }

    /** @param \Closure(string): string $rename nodes and walls */
    public function renamed(\Closure $rename): self
    {
        $keys = static fn (array $named): array => array_map($rename, array_map(strval(...), array_keys($named)));
        $walls = array_map(static fn (array $wall): array => [$rename($wall[0]), $rename($wall[1])] + $wall, $this->walls);

        return new self(
            array_combine($keys($this->nodes), $this->nodes),
            array_combine($keys($walls), $walls),
            array_combine($keys($this->sigmas), $this->sigmas),
            $this->degrees,
            $this->x,
            $this->y,
            $this->thickness,
        );
    }

    /** @param list<Figure> $figures */
    public function settled(array $figures = []): Settled
    {
        $points = array_map(fn (array $p): Point => $this->out(...$p), $this->nodes);
        $walls = [];
        foreach ($this->walls as $id => $wall) {
            $walls[] = new JoinedWall(
                new Wall((string) $id, $points[$wall[0]], $points[$wall[1]], $this->thickness, rise: $wall[2] ?? 0.0),
                $wall[0],
                $wall[1],
            );
        }

        return Settle::storey($walls, $points, $this->sigmas, $figures);
    }

    /** @return array<array-key, array{float, float}> where nodes are once it is settled, turned and moved back */
    public function after(Settled $settled): array
    {
        $nodes = $this->nodes;
        foreach ($settled->moves as $name => $p) {
            $nodes[$name] = $this->back($p);
        }

        return $nodes;
    }

    private function out(float $x, float $y): Point
    {
        [$c, $s] = [cos(deg2rad($this->degrees)), sin(deg2rad($this->degrees))];

        return new Point($this->x + $c * $x - $s * $y, $this->y + $s * $x + $c * $y);
    }

    /** @return array{float, float} */
    private function back(Point $p): array
    {
        [$c, $s] = [cos(deg2rad($this->degrees)), sin(deg2rad($this->degrees))];
        [$x, $y] = [$p->x - $this->x, $p->y - $this->y];

        return [$c * $x + $s * $y, $c * $y - $s * $x];
    }
}
