<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Editing\Exception\UnusableEdit;
use Plinth\Core\Plan\Editing\Shift;
use Plinth\Core\Plan\Model\JoinedWall;
use Plinth\Core\Plan\Model\Wall as CoreWall;
use Plinth\Core\Plan\Settling\StoreySettled;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Raw;
use Plinth\Server\Change\Workspace;
use Symfony\Component\Uid\Uuid;

/** Walls of a storey with their nodes, as operations that move them want to have them. */
final class StoreyWalls
{
    private const MARGIN_MM = 500.0;

    /**
     * Walls and nodes go by the bytes of their ids.
     *
     * @param non-empty-list<Wall> $walls that are to be moved: with them come those that go straight on, and all near those
     */
    public static function round(Workspace $workspace, array $walls): Shift
    {
        $storey = $walls[0]->storey();
        $ids = array_map(static fn (Wall $w): string => $w->id()->toBinary(), $walls);
        $box = self::around(array_map(static fn (Wall $w): array => $w->box(), $walls));
        while (true) {
            [$joined, $nodes, $wider] = self::within($workspace, $storey, $box);
            $shift = new Shift($joined, $nodes);
            $runs = array_merge(
                ...array_map(
                    $shift->run(...),
                    array_values(array_intersect($ids, array_map(static fn (JoinedWall $j): string => $j->wall->id, $joined))),
                ),
            );
            $needed = self::around(
                [
                    $box,
                    ...array_values(
                        array_map(
                            static fn (JoinedWall $j): array => $j->wall->box(),
                            array_filter($joined, static fn (JoinedWall $j): bool => \in_array($j->wall->id, $runs, true)),
                        ),
                    ),
                ],
                0.0,
            );
            if ($needed[0] >= $box[0] && $needed[1] >= $box[1] && $needed[2] <= $box[2] && $needed[3] <= $box[3]) {
                // What meets them is there; what in turn meets that is needed as well.
                [$joined, $nodes] = self::within($workspace, $storey, $wider);

                return new Shift($joined, $nodes);
            }
            $box = self::around([$needed]);
        }
    }

    /**
     * @param non-empty-list<array{float, float, float, float}> $boxes
     *
     * @return array{float, float, float, float}
     */
    private static function around(array $boxes, float $margin = self::MARGIN_MM): array
    {
        return [
            min(array_column($boxes, 0)) - $margin,
            min(array_column($boxes, 1)) - $margin,
            max(array_column($boxes, 2)) + $margin,
            max(array_column($boxes, 3)) + $margin,
        ];
    }

    /**
     * @param array{float, float, float, float} $box
     *
     * @return array{list<JoinedWall>, array<string, Point>, array{float, float, float, float}} walls that touch the box, their nodes, and
     *                                                                                          the box round them
     */
    private static function within(Workspace $workspace, Uuid $storey, array $box): array
    {
        $nodes = [];
        $walls = [];
        $wider = $box;
        $rows = $workspace->connection()->iterateNumeric(
            'SELECT w.id, w.from_node, f.x, f.y, w.to_node, t.x, t.y, w.thickness, w.rise FROM wall w JOIN node f ON f.project = w.project AND f.id = w.from_node JOIN node t ON t.project = w.project AND t.id = w.to_node WHERE w.project = ? AND w.storey = ? AND w.x_min <= ? AND w.x_max >= ? AND w.y_min <= ? AND w.y_max >= ? ORDER BY w.id',
            [$workspace->project()->toBinary(), $storey->toBinary(), $box[2], $box[0], $box[3], $box[1]],
        );
        foreach ($rows as [$id, $from, $x1, $y1, $to, $x2, $y2, $thickness, $rise]) {
            [$id, $from, $to] = [Raw::text($id), Raw::text($from), Raw::text($to)];
            $nodes[$from] ??= new Point(Raw::number($x1), Raw::number($y1));
            $nodes[$to] ??= new Point(Raw::number($x2), Raw::number($y2));
            $walls[] = $joined = new JoinedWall(
                new CoreWall($id, $nodes[$from], $nodes[$to], Raw::number($thickness), rise: Raw::number($rise)),
                $from,
                $to,
            );
            $wider = self::around([$wider, $joined->wall->box()], 0.0);
        }

        return [$walls, $nodes, $wider];
    }

    public static function core(Workspace $workspace, Wall $wall): CoreWall
    {
        return Wall::core(
            $wall->id()->toRfc4122(),
            $wall->values(),
            $workspace->get(Node::class, $wall->fromNode())->at(),
            $workspace->get(Node::class, $wall->toNode())->at(),
        );
    }

    /**
     * @param array<string, Point> $nodes by the bytes of their ids
     * @param Base $base revision that the client knew: what was moved later is in conflict
     */
    public static function move(Workspace $workspace, array $nodes, Base $base, string $at): void
    {
        foreach ($nodes as $id => $point) {
            $row = $workspace->current(Node::class, Uuid::fromBinary($id), $base, $at);
            $workspace->set($row, ['x' => $point->x, 'y' => $point->y], $at);
        }
    }

    /**
     * Moves nodes; openings of walls that begin elsewhere then keep their place in the building. Those of a wall that goes as a whole go
     * with it.
     *
     * @param array<string, Point> $nodes as in {@see move()}
     */
    public static function carry(Workspace $workspace, array $nodes, Base $base, string $at): void
    {
        $ids = array_map(Uuid::fromBinary(...), array_keys($nodes));
        $workspace->findAllBy(Wall::class, 'fromNode', $ids);
        $walls = array_merge([], ...array_map(static fn (Uuid $id): array => $workspace->findBy(Wall::class, 'fromNode', $id), $ids));
        $before = array_map(static fn (Wall $w): CoreWall => self::core($workspace, $w), $walls);
        self::move($workspace, $nodes, $base, $at);
        $further = [];
        foreach ($walls as $i => $wall) {
            $after = self::core($workspace, $wall);
            [$by, $end] = [[$after->from->x - $before[$i]->from->x, $after->from->y - $before[$i]->from->y], $before[$i]->to];
            if ($end->plus(...$by)->distanceTo($after->to) > CoreWall::JOIN_MM) {
                $further[$i] = StoreySettled::along($before[$i]->from, $after->from, $after->to);
            }
        }
        $workspace->findAllBy(Opening::class, 'wall', array_map(static fn (int $i): Uuid => $walls[$i]->id(), array_keys($further)));
        foreach ($further as $i => $along) {
            foreach ($workspace->findBy(Opening::class, 'wall', $walls[$i]->id()) as $opening) {
                $workspace->set($opening, ['offset' => $opening->offset() + $along], $at);
            }
        }
    }

    /**
     * Gives a wall a length that somebody has written; its openings keep their place in the building.
     *
     * @throws UnusableEdit
     */
    public static function lengthen(Workspace $workspace, Wall $wall, float $mm, bool $startStays, Base $base, string $at): void
    {
        $moved = self::round($workspace, [$wall])->asLongAs($wall->id()->toBinary(), $mm, $startStays);
        $workspace->set($wall, ['evidence' => Evidence::Figure->value], $at);
        self::carry($workspace, $moved, $base, $at);
    }
}
