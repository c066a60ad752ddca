<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling\Internal;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\JoinedWall;

/**
 * A storey as settling reckons with it: nodes by number, and places from the middle of them all, so that it matters nowhere how
 * far from the origin the storey lies.
 *
 * @internal
 */
final readonly class Traced
{
    /**
     * @param list<string> $names of the nodes
     * @param array<array-key, int> $numbers of the nodes by name
     * @param list<array{float, float}> $places from the middle, mm
     * @param list<float> $sigmas standard deviation of a place along any axis, mm
     * @param array<array-key, array{int, int}> $straight nodes of each straight wall that has a length
     * @param array<array-key, float> $thicknesses of all walls, mm
     */
    private function __construct(
        public Point $middle,
        public array $names,
        public array $numbers,
        public array $places,
        public array $sigmas,
        public array $straight,
        public array $thicknesses,
    ) {
    }

    /**
     * @param list<JoinedWall> $walls
     * @param array<array-key, Point> $nodes
     * @param array<array-key, float> $sigmas
     */
    public static function storey(array $walls, array $nodes, array $sigmas, float $otherwise): self
    {
        $names = array_map(strval(...), array_keys($nodes));
        $points = array_values($nodes);
        $count = max(1, \count($points));
        $middle = new Point(
            array_sum(array_map(static fn (Point $p): float => $p->x, $points)) / $count,
            array_sum(array_map(static fn (Point $p): float => $p->y, $points)) / $count,
        );
        $numbers = array_flip($names);
        $places = array_map(static fn (Point $p): array => [$p->x - $middle->x, $p->y - $middle->y], $points);
        [$straight, $thicknesses] = [[], []];
        foreach ($walls as $wall) {
            $id = $wall->wall->id;
            $thicknesses[$id] = $wall->wall->thickness;
            [$from, $to] = [$numbers[$wall->from], $numbers[$wall->to]];
            if (0.0 === $wall->wall->rise && $places[$from] !== $places[$to]) {
                $straight[$id] = [$from, $to];
            }
        }

        return new self(
            $middle,
            $names,
            $numbers,
            $places,
            array_map(static fn (string $name): float => max(1e-3, $sigmas[$name] ?? $otherwise), $names),
            $straight,
            $thicknesses,
        );
    }

    /** @param list<array{float, float}> $places of the nodes */
    public function at(array $places): self
    {
        $straight = array_filter($this->straight, static fn (array $ends): bool => $places[$ends[0]] !== $places[$ends[1]]);

        return new self($this->middle, $this->names, $this->numbers, $places, $this->sigmas, $straight, $this->thicknesses);
    }

    /** @param array<array-key, true> $walls */
    public function without(array $walls): self
    {
        return new self(
            $this->middle,
            $this->names,
            $this->numbers,
            $this->places,
            $this->sigmas,
            array_diff_key($this->straight, $walls),
            $this->thicknesses,
        );
    }

    /** @return array<array-key, true> walls that run another way there by more than so many radians */
    public function turnedBeyond(self $there, float $radians): array
    {
        $turned = [];
        foreach (array_keys($there->straight) as $id) {
            $by = $there->angle((string) $id) - $this->angle((string) $id);
            if (abs($by - 2.0 * \M_PI * round($by / (2.0 * \M_PI))) > $radians) {
                $turned[$id] = true;
            }
        }

        return $turned;
    }

    /** @return array{float, float} from the first node of a wall to the second, as traced */
    public function run(string $wall): array
    {
        [$a, $b] = $this->straight[$wall];

        return [$this->places[$b][0] - $this->places[$a][0], $this->places[$b][1] - $this->places[$a][1]];
    }

    public function length(string $wall): float
    {
        return hypot(...$this->run($wall));
    }

    public function angle(string $wall): float
    {
        [$dx, $dy] = $this->run($wall);

        return atan2($dy, $dx);
    }
}
