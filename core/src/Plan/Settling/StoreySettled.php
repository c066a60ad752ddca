<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Tolerance;
use Plinth\Core\Plan\Model\JoinedWall;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;

/** A storey by itself, settled: ends of walls within a millimetre of each other are one node, and openings keep their places. */
final readonly class StoreySettled
{
    /** @param list<array{Point, Point}> $moves where nodes were, and where they are */
    private function __construct(public Storey $storey, public Settled $settled, public array $moves)
    {
    }

    public static function of(Storey $storey): self
    {
        [$nodes, $joined] = self::joined($storey->walls);
        $settled = Settle::storey($joined, $nodes, [], $storey->figures);
        [$walls, $shifts, $moves] = [[], [], []];
        foreach ($settled->moves as $name => $to) {
            $moves[] = [$nodes[$name], $to];
        }
        foreach ($joined as $i => $j) {
            $wall = $storey->walls[$i];
            $from = $settled->moves[$j->from] ?? $wall->from;
            $to = $settled->moves[$j->to] ?? $wall->to;
            $walls[] = $wall->between($from, $to);
            $shifts[$wall->id] = self::along($wall->from, $from, $to);
        }
        $openings = array_map(static fn (Opening $o): Opening => $o->shifted($shifts[$o->wall] ?? 0.0), $storey->openings);

        return new self($storey->with($walls, $openings), $settled, $moves);
    }

    /** By how much further along its wall a place lies once the wall begins elsewhere, mm. */
    public static function along(Point $before, Point $from, Point $to): float
    {
        $length = max(Tolerance::ROUND_OFF_MM, $from->distanceTo($to));

        return (($before->x - $from->x) * ($to->x - $from->x) + ($before->y - $from->y) * ($to->y - $from->y)) / $length;
    }

    /**
     * @param list<Wall> $walls
     *
     * @return array{array<string, Point>, list<JoinedWall>} nodes by name; the first of some ends gives its place
     */
    private static function joined(array $walls): array
    {
        [$nodes, $cells, $joined] = [[], [], []];
        $name = static function (Point $p) use (&$nodes, &$cells): string {
            [$i, $j] = [(int) floor($p->x / Wall::JOIN_MM), (int) floor($p->y / Wall::JOIN_MM)];
            for ($k = 0; $k < 9; ++$k) {
                foreach ($cells[$i + intdiv($k, 3) - 1][$j + $k % 3 - 1] ?? [] as $near) {
                    if ($nodes[$near]->distanceTo($p) <= Wall::JOIN_MM) {
                        return $near;
                    }
                }
            }
            $new = 'node '.\count($nodes);
            $nodes[$new] = $p;
            $cells[$i][$j][] = $new;

            return $new;
        };
        foreach ($walls as $wall) {
            $joined[] = new JoinedWall($wall, $name($wall->from), $name($wall->to));
        }

        return [$nodes, $joined];
    }
}
