<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operations;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Plinth\Server\SettingOut\Column;
use Symfony\Component\Uid\Uuid;
use Symfony\Component\Uid\UuidV7;

/** Copies walls, or all that is traced on a storey, to a storey; moves walls to another one. Corners that were shared stay shared. */
final readonly class WallsElsewhere
{
    /** `walls` (with their `openings` where that is said), or all of a `storey`, `to` a storey, `by` x and y, mm. */
    public function copy(Workspace $workspace, JsonValue $copy): void
    {
        $copy->object(['storey', 'walls', 'openings', 'to', 'by']);
        $to = RowValues::uuid($copy->get('to'));
        $by = $copy->optional('by')?->pair() ?? [0.0, 0.0];
        $whole = null === $copy->optional('storey') ? null : RowValues::uuid($copy->get('storey'));
        $walls = null === $whole ? $this->walls($workspace, $copy->list('walls'), null) : $workspace->findBy(Wall::class, 'storey', $whole);
        $copies = $this->copyWalls($workspace, $walls, $to, $by, $copy->at);
        if (null !== $whole || true === $copy->optional('openings')?->boolean()) {
            $workspace->findAllBy(Opening::class, 'wall', array_map(static fn (Wall $w): Uuid => $w->id(), $walls));
            foreach ($walls as $wall) {
                foreach ($workspace->findBy(Opening::class, 'wall', $wall->id()) as $opening) {
                    $workspace->add(
                        Opening::class,
                        new UuidV7(),
                        ['wall' => $copies[$wall->id()->toRfc4122()]] + $opening->values(),
                        $copy->at,
                    );
                }
            }
        }
        if (null === $whole) {
            return;
        }
        foreach ([Room::class, Divider::class, Column::class] as $class) {
            foreach ($workspace->findBy($class, 'storey', $whole) as $row) {
                $workspace->add($row::class, new UuidV7(), self::elsewhere($row, $to, $by), $copy->at);
            }
        }
    }

    /**
     * With their openings; nodes that walls need which stay are left to those and copied.
     *
     * @param list<JsonValue> $ids
     */
    public function move(Workspace $workspace, array $ids, Uuid $to, Base $base, string $at): void
    {
        $walls = $this->walls($workspace, $ids, $base);
        $going = array_fill_keys(array_map(static fn (Wall $w): string => $w->id()->toRfc4122(), $walls), true);
        $nodes = [];
        foreach ($walls as $wall) {
            foreach ([$wall->fromNode(), $wall->toNode()] as $id) {
                $nodes[$id->toRfc4122()] ??= $this->takeAlong($workspace, $id, $going, $to, $base, $at);
            }
            $workspace->set(
                $wall,
                [
                    'storey' => $to->toRfc4122(),
                    'fromNode' => $nodes[$wall->fromNode()->toRfc4122()],
                    'toNode' => $nodes[$wall->toNode()->toRfc4122()],
                ],
                $at,
            );
        }
    }

    /**
     * @param list<Wall> $walls
     * @param array{float, float} $by
     *
     * @return array<string, string> id of a wall → id of its copy
     */
    private function copyWalls(Workspace $workspace, array $walls, Uuid $to, array $by, string $at): array
    {
        $workspace->readAll(Node::class, array_merge(...array_map(static fn (Wall $w): array => [$w->fromNode(), $w->toNode()], $walls)));
        $nodes = [];
        $copies = [];
        foreach ($walls as $wall) {
            foreach ([$wall->fromNode(), $wall->toNode()] as $id) {
                $nodes[$id->toRfc4122()] ??= $workspace->add(
                    Node::class,
                    new UuidV7(),
                    self::elsewhere($workspace->get(Node::class, $id), $to, $by),
                    $at,
                )->id()->toRfc4122();
            }
            $values = [
                'storey' => $to->toRfc4122(),
                'fromNode' => $nodes[$wall->fromNode()->toRfc4122()],
                'toNode' => $nodes[$wall->toNode()->toRfc4122()],
            ] + $wall->values();
            $copies[$wall->id()->toRfc4122()] = $workspace->add(Wall::class, new UuidV7(), $values, $at)->id()->toRfc4122();
        }

        return $copies;
    }

    /**
     * @param array<string, true> $going ids of the walls that go
     *
     * @return string id of the node on the other storey
     */
    private function takeAlong(Workspace $workspace, Uuid $id, array $going, Uuid $to, Base $base, string $at): string
    {
        $node = $workspace->current(Node::class, $id, $base, $at);
        foreach (['fromNode', 'toNode'] as $end) {
            foreach ($workspace->findBy(Wall::class, $end, $id) as $wall) {
                if (!isset($going[$wall->id()->toRfc4122()])) {
                    return $workspace->add(Node::class, new UuidV7(), self::elsewhere($node, $to, [0.0, 0.0]), $at)->id()->toRfc4122();
                }
            }
        }
        $workspace->set($node, ['storey' => $to->toRfc4122()], $at);

        return $id->toRfc4122();
    }

    /**
     * @param list<JsonValue> $ids
     * @param Base|null $base where they are to be changed
     *
     * @return list<Wall>
     */
    private function walls(Workspace $workspace, array $ids, ?Base $base): array
    {
        $workspace->readAll(Wall::class, array_map(RowValues::uuid(...), $ids));

        return array_map(static function (JsonValue $id) use ($workspace, $base): Wall {
            $wall = null === $base ? $workspace->find(Wall::class, RowValues::uuid($id)) : $workspace->current(
                Wall::class,
                RowValues::uuid($id),
                $base,
                $id->at,
            );

            return $wall ?? throw Refusal::conflict('gone', 'This wall is not there any more.', $id->at);
        }, $ids);
    }

    /**
     * @param array{float, float} $by
     *
     * @return array<string, scalar|null>
     */
    private static function elsewhere(ProjectRow $row, Uuid $to, array $by): array
    {
        return ['storey' => $to->toRfc4122()] + Operations::moved($row, $by[0], $by[1]) + $row->values();
    }
}
