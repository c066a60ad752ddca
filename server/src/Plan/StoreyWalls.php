<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\JoinedWall;
use Plinth\Core\Plan\Shift;
use Plinth\Core\Plan\Wall as CoreWall;
use Plinth\Server\Change\Operations;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\Workspace;
use Symfony\Component\Uid\Uuid;

/** Walls of a storey with their nodes, as operations that move them want to have them. */
final readonly class StoreyWalls
{
    /** Walls and nodes go by the bytes of their ids. */
    public static function of(Workspace $workspace, Uuid $storey): Shift
    {
        $nodes = [];
        $walls = [];
        $rows = $workspace->connection()->iterateNumeric('SELECT w.id, w.from_node, f.x, f.y, w.to_node, t.x, t.y, w.thickness, w.rise FROM wall w JOIN node f ON f.id = w.from_node JOIN node t ON t.id = w.to_node WHERE w.storey = ? ORDER BY w.id', [$storey->toBinary()]);
        foreach ($rows as [$id, $from, $x1, $y1, $to, $x2, $y2, $thickness, $rise]) {
            // By their sixteen bytes: names are spelled out only for what is moved.
            [$id, $from, $to] = [Raw::text($id), Raw::text($from), Raw::text($to)];
            $nodes[$from] ??= new Point(Raw::number($x1), Raw::number($y1));
            $nodes[$to] ??= new Point(Raw::number($x2), Raw::number($y2));
            $walls[$id] = new JoinedWall(new CoreWall($id, $nodes[$from], $nodes[$to], Raw::number($thickness), rise: Raw::number($rise)), $from, $to);
        }

        return new Shift(array_values($walls), $nodes);
    }

    public static function core(Workspace $workspace, Wall $wall): CoreWall
    {
        return Wall::core($wall->id()->toRfc4122(), $wall->values(), $workspace->get(Node::class, $wall->fromNode())->at(), $workspace->get(Node::class, $wall->toNode())->at());
    }

    /**
     * @param array<string, Point> $nodes by the bytes of their ids
     * @param int $base revision that the client knew: what was moved later is in conflict
     */
    public static function move(Workspace $workspace, array $nodes, int $base, string $at): void
    {
        foreach ($nodes as $id => $point) {
            $row = Operations::current($workspace, RowType::Node, Uuid::fromBinary($id), $base, $at);
            $workspace->set($row, ['x' => $point->x, 'y' => $point->y], $at);
        }
    }
}
