<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Slab;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Tests\Fitting\Noise;

/** Plans for tests. */
final class Plans
{
    public static function wall(string $id, float $x1, float $y1, float $x2, float $y2, float $thickness = 200.0): Wall
    {
        return new Wall($id, new Point($x1, $y1), new Point($x2, $y2), $thickness);
    }

    /**
     * @param list<Wall> $walls
     * @param list<Opening> $openings
     * @param list<Room> $rooms
     */
    public static function storey(array $walls, array $openings = [], array $rooms = []): Storey
    {
        return new Storey('s', 'Ground', 0.0, 2700.0, $walls, $openings, $rooms);
    }

    /**
     * A rectangle of 6 × 4 m on its centre lines.
     *
     * @return list<Wall>
     */
    public static function rectangle(float $thickness = 200.0): array
    {
        return [
            self::wall('south', 0, 0, 6000, 0, $thickness), self::wall('east', 6000, 0, 6000, 4000, $thickness),
            self::wall('north', 6000, 4000, 0, 4000, $thickness), self::wall('west', 0, 4000, 0, 0, $thickness),
        ];
    }

    /**
     * A grid of rooms with shaken nodes, some walls left out, thicknesses all different: angles of every kind.
     *
     * @return list<Wall>
     */
    public static function shaken(int $seed, int $columns = 4, int $rows = 3, float $kept = 0.8): array
    {
        Noise::seed($seed);
        $nodes = [];
        for ($i = 0; $i <= $columns; ++$i) {
            for ($j = 0; $j <= $rows; ++$j) {
                $nodes["$i,$j"] = [$i * 4000.0 + Noise::uniform(-900, 900), $j * 3500.0 + Noise::uniform(-800, 800)];
            }
        }
        $walls = [];
        foreach ($nodes as $key => [$x, $y]) {
            [$i, $j] = array_map(intval(...), explode(',', $key));
            foreach ([[$i + 1, $j], [$i, $j + 1]] as [$k, $l]) {
                $edge = (0 === $i && $k === $i) || ($columns === $i && $k === $i) || (0 === $j && $l === $j) || ($rows === $j && $l === $j);
                if (isset($nodes["$k,$l"]) && ($edge || Noise::uniform(0, 1) < $kept)) {
                    $walls[] = self::wall("w$key-$k,$l", $x, $y, $nodes["$k,$l"][0], $nodes["$k,$l"][1], round(Noise::uniform(80, 420)));
                }
            }
        }

        return $walls;
    }

    /**
     * A shaken grid as a storey is when it is done: a door or window in every wall, every room named, a column to two walls, some
     * rooms parted by dividers.
     */
    public static function furnished(int $seed, int $columns = 4, int $rows = 3): Storey
    {
        $walls = self::shaken($seed, $columns, $rows);
        $openings = [];
        foreach ($walls as $wall) {
            $width = [760.0, 860.0, 1010.0, 1200.0][mt_rand(0, 3)];
            $kind = mt_rand(0, 1) > 0 ? OpeningKind::Door : OpeningKind::Window;
            $openings[] = new Opening("o$wall->id", $wall->id, $kind, Noise::uniform(400.0, $wall->length() - 400.0 - $width), $width);
        }
        $dividers = [];
        foreach ($walls as $i => $wall) {
            // From one wall's middle across a room on to whatever lies there.
            if (0 === $i % 20 && abs($wall->to->x - $wall->from->x) > abs($wall->to->y - $wall->from->y)) {
                [$x, $y] = [($wall->from->x + $wall->to->x) / 2.0, ($wall->from->y + $wall->to->y) / 2.0];
                $dividers[] = new Divider("d$i", new Point($x, $y), new Point($x, $y + 3500.0));
            }
        }
        $posts = [];
        for ($i = 0; $i < $columns; ++$i) {
            for ($j = 0; $j < $rows; ++$j) {
                $posts[] = new Column(
                    "c$i,$j",
                    new Point($i * 4000.0 + Noise::uniform(1400, 2600), $j * 3500.0 + Noise::uniform(1200, 2200)),
                    300.0,
                    300.0,
                    0 === ($i + $j) % 3,
                );
            }
        }
        $rooms = [];
        foreach (Derivation::of(new Storey('s', 'Ground', 0.0, 2700.0, $walls, [], [], $dividers))->regions as $i => $region) {
            $rooms[] = new Room("r$i", "Room $i", (string) $i, new Point(...$region->label));
        }

        return new Storey('s', 'Ground', 0.0, 2700.0, $walls, $openings, $rooms, $dividers, $posts);
    }

    /** The same with heights for its openings, as drawn ones have them, and a floor under each group of walls. */
    public static function standing(int $seed, int $columns, int $rows): Storey
    {
        $plan = self::furnished($seed, $columns, $rows);
        $openings = array_map(static fn (Opening $o): Opening => new Opening(
            $o->id,
            $o->wall,
            $o->kind,
            $o->offset,
            $o->width,
            OpeningKind::Window === $o->kind ? 900.0 : 0.0,
            OpeningKind::Window === $o->kind ? 1200.0 : 2100.0,
        ), $plan->openings);
        $floors = [];
        foreach (Derivation::of($plan)->outlines as $i => $outline) {
            $floors[] = new Slab("floor $i", new Contour(array_map(static fn (array $p): Point => new Point(...$p), $outline->outer)), 0.0, 250.0);
        }

        return $plan->with($plan->walls, $openings)->built($floors);
    }

    /**
     * A shaken grid of rooms on which walls were traced twice, a hair aside, beside each other at less than they are thick, and across.
     *
     * @return list<Wall>
     */
    public static function tangled(int $seed): array
    {
        $walls = self::shaken($seed, 2, 2, 0.9);
        for ($n = (int) Noise::uniform(1, 4.99); $n > 0; --$n) {
            $host = $walls[(int) Noise::uniform(0, \count($walls) - 0.01)];
            $length = $host->length();
            $from = Noise::uniform(-0.1, 0.6) * $length;
            $to = $from + Noise::uniform(0.15, 0.6) * $length;
            [$first, $second] = match ((int) Noise::uniform(0, 3.99)) {
                // Again, from some millimetres on one side to some on the other.
                0 => [Noise::uniform(-4, 4), Noise::uniform(-4, 4)],
                // Beside it, nearer than both are thick.
                1 => array_fill(0, 2, Noise::uniform(3, 250)),
                // Nearly beside it, and across it at a flat angle.
                2 => [Noise::uniform(-300, 300), Noise::uniform(-300, 300)],
                // Anywhere across.
                default => [Noise::uniform(-3000, 3000), Noise::uniform(-3000, 3000)],
            };
            $walls[] = new Wall("again$n", $host->at($from, $first), $host->at($to, $second), round(Noise::uniform(60, 400)));
        }

        return $walls;
    }
}
