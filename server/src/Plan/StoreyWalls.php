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
    /** @param array<string, JoinedWall> $walls */
    private function __construct(public array $walls, private Shift $shift)
    {
    }

    public static function of(Workspace $workspace, Uuid $storey): self
    {
        $nodes = [];
        foreach ($workspace->findBy(Node::class, 'storey', $storey) as $node) {
            $nodes[$node->id()->toRfc4122()] = $node->at();
        }
        $walls = [];
        foreach ($workspace->findBy(Wall::class, 'storey', $storey) as $wall) {
            $id = $wall->id()->toRfc4122();
            [$from, $to] = [$wall->fromNode()->toRfc4122(), $wall->toNode()->toRfc4122()];
            $walls[$id] = new JoinedWall(Wall::core($id, $wall->values(), $nodes[$from], $nodes[$to]), $from, $to);
        }

        return new self($walls, new Shift(array_values($walls), $nodes));
    }

    public function shift(): Shift
    {
        return $this->shift;
    }

    public static function core(Workspace $workspace, Wall $wall): CoreWall
    {
        return Wall::core($wall->id()->toRfc4122(), $wall->values(), $workspace->get(Node::class, $wall->fromNode())->at(), $workspace->get(Node::class, $wall->toNode())->at());
    }

    /**
     * @param array<string, Point> $nodes
     * @param int $base revision that the client knew: what was moved later is in conflict
     */
    public static function move(Workspace $workspace, array $nodes, int $base, string $at): void
    {
        foreach ($nodes as $id => $point) {
            $row = Operations::current($workspace, RowType::Node, Uuid::fromString($id), $base, $at);
            $workspace->set($row, ['x' => $point->x, 'y' => $point->y], $at);
        }
    }
}
