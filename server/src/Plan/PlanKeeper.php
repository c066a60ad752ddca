<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\DBAL\Connection;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Divider as CoreDivider;
use Plinth\Core\Plan\Storey as CoreStorey;
use Plinth\Core\Plan\Wall as CoreWall;
use Plinth\Server\Change\Raw;
use Plinth\Server\Change\RowId;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Symfony\Component\Uid\Uuid;

/** Keeps the plan's rules while rows change, and what is derived from them. */
final readonly class PlanKeeper
{
    /** A terrace of forty houses is shorter; common practice, no source. */
    public const LONGEST_MM = 1e6;

    public function __construct(private Connection $connection, private DerivedShapes $shapes)
    {
    }

    /** Walls keep a length, their boxes stay true, and openings stay narrower than their walls. */
    public function check(Workspace $workspace): void
    {
        $walls = [];
        foreach ($workspace->touched(RowType::Wall) as $wall) {
            \assert($wall instanceof Wall);
            $walls[$wall->id()->toRfc4122()] = $wall;
        }
        $workspace->readAll(RowType::Node, array_merge(...array_map(static fn (Wall $w): array => [$w->fromNode(), $w->toNode()], array_values($walls))));
        $moved = array_filter($workspace->touched(RowType::Node), static fn ($n): bool => null !== ($workspace->before()['node/'.$n->id()->toRfc4122()][2] ?? null));
        foreach (['fromNode', 'toNode'] as $end) {
            $workspace->findAllBy(Wall::class, $end, array_map(static fn ($n): Uuid => $n->id(), array_values($moved)));
        }
        foreach ($moved as $node) {
            foreach (['fromNode', 'toNode'] as $end) {
                foreach ($workspace->findBy(Wall::class, $end, $node->id()) as $wall) {
                    $walls[$wall->id()->toRfc4122()] = $wall;
                }
            }
        }
        $lengths = [];
        foreach ($walls as $id => $wall) {
            $lengths[$id] = $wall->span($workspace->get(Node::class, $wall->fromNode())->at(), $workspace->get(Node::class, $wall->toNode())->at())->length();
            if ($lengths[$id] > self::LONGEST_MM) {
                throw Refusal::invalid('wall-too-long', \sprintf('This wall is %.0f m long; the longest that is drawn in one piece is %d m. Check the unit.', $lengths[$id] / 1e3, self::LONGEST_MM / 1e3), $id);
            }
        }
        foreach ($workspace->touched(RowType::Opening) as $opening) {
            \assert($opening instanceof Opening);
            $id = $opening->wall()->toRfc4122();
            if (!isset($lengths[$id])) {
                $wall = $workspace->get(Wall::class, $opening->wall());
                $lengths[$id] = $wall->span($workspace->get(Node::class, $wall->fromNode())->at(), $workspace->get(Node::class, $wall->toNode())->at())->length();
            }
            if ($opening->width() > $lengths[$id]) {
                throw Refusal::invalid('opening-too-wide', \sprintf('The opening is %.0f mm wide, its wall only %.0f mm long: make it narrower, or choose a longer wall.', $opening->width(), $lengths[$id]), $opening->id()->toRfc4122().'/width');
            }
        }
    }

    /** Derives what the change has touched on every storey. */
    public function deriveTouched(Workspace $workspace, int $revision): void
    {
        foreach ($this->touched($workspace) as $storey => $touched) {
            $this->shapes->update(new RowId($workspace->project(), Uuid::fromString($storey)), $revision, $touched);
        }
    }

    /** The storey as the core knows it. */
    public function load(RowId $storey): CoreStorey
    {
        $head = $this->connection->fetchAssociative('SELECT name, elevation, height FROM storey WHERE project = ? AND id = ?', $storey->binary());
        $near = new StoreyNear($this->connection, $storey);
        $lines = $near->lines($near->bounds() ?? [0.0, 0.0, 0.0, 0.0]);
        $walls = array_values(array_filter($lines, static fn ($l): bool => $l instanceof CoreWall));
        $everywhere = [-\INF, -\INF, \INF, \INF];

        return new CoreStorey(
            $storey->id->toRfc4122(), Raw::text($head['name'] ?? ''), Raw::number($head['elevation'] ?? 0.0), Raw::number($head['height'] ?? 2700.0),
            $walls, $near->openings(array_map(static fn (CoreWall $w): string => $w->id, $walls)), $near->rooms($everywhere), array_values(array_filter($lines, static fn ($l): bool => $l instanceof CoreDivider)), $near->columns($everywhere),
        );
    }

    /** @return array<string, TouchedLines> by storey */
    private function touched(Workspace $workspace): array
    {
        /** @var array<string, TouchedLines> $storeys */
        $storeys = [];
        $of = static function (mixed $storey) use (&$storeys): TouchedLines {
            \assert(\is_string($storey));

            return $storeys[$storey] ??= new TouchedLines();
        };
        $walls = [];
        foreach ($workspace->before() as [$type, $id, $before]) {
            $row = $workspace->find($type, $id);
            $states = array_filter([$before, $row?->values()], static fn (?array $v): bool => null !== $v);
            switch ($type) {
                case RowType::Wall:
                    $walls[$id->toRfc4122()] = $id;
                    break;
                case RowType::Node:
                    foreach (null === $row || null === $before ? [] : ['fromNode', 'toNode'] as $end) {
                        foreach ($workspace->findBy(Wall::class, $end, $id) as $wall) {
                            $walls[$wall->id()->toRfc4122()] = $wall->id();
                        }
                    }
                    break;
                case RowType::Opening:
                    foreach ($states as $values) {
                        $wall = $workspace->find(RowType::Wall, Uuid::fromString((string) $values['wall']));
                        if ($wall instanceof Wall) {
                            $of($wall->storey()->toRfc4122())->reshaped[$wall->id()->toRfc4122()] = StoreyWalls::core($workspace, $wall);
                        }
                    }
                    break;
                case RowType::Room:
                    foreach ($states as $values) {
                        $of($values['storey'])->points[] = new Point((float) $values['x'], (float) $values['y']);
                        $of($values['storey'])->rooms[] = $id->toRfc4122();
                    }
                    break;
                case RowType::Divider:
                    foreach ($states as $values) {
                        $of($values['storey'])->line($id->toRfc4122(), null === $before ? null : Divider::core($id->toRfc4122(), $before), null === $row ? null : Divider::core($id->toRfc4122(), $row->values()));
                    }
                    break;
                case RowType::Column:
                    foreach ($states as $values) {
                        [$x, $y, $w, $d] = [(float) $values['x'], (float) $values['y'], (float) $values['width'] / 2.0, (float) $values['depth'] / 2.0];
                        foreach ([[0.0, 0.0], [-$w, -$d], [$w, -$d], [$w, $d], [-$w, $d]] as [$dx, $dy]) {
                            $of($values['storey'])->points[] = new Point($x + $dx, $y + $dy);
                        }
                    }
                    break;
                default:
            }
        }
        foreach ($walls as $key => $id) {
            $row = $workspace->find(RowType::Wall, $id);
            $after = $row?->values();
            $before = \array_key_exists("wall/$key", $workspace->before()) ? $workspace->before()["wall/$key"][2] : $after;
            foreach (array_unique([$before['storey'] ?? null, $after['storey'] ?? null]) as $storey) {
                if (null !== $storey) {
                    $was = $storey === ($before['storey'] ?? null) ? $this->geometry($workspace, $key, $before, true) : null;
                    $is = $storey === ($after['storey'] ?? null) ? $this->geometry($workspace, $key, $after, false) : null;
                    $of($storey)->line($key, $was, $is);
                }
            }
        }

        return $storeys;
    }

    /** @param array<string, scalar|null>|null $values of the wall's row, as it was or as it is */
    private function geometry(Workspace $workspace, string $id, ?array $values, bool $before): ?CoreWall
    {
        if (null === $values) {
            return null;
        }
        $ends = [];
        foreach (['fromNode', 'toNode'] as $end) {
            $key = 'node/'.$values[$end];
            $node = $before && \array_key_exists($key, $workspace->before()) ? $workspace->before()[$key][2] : null;
            $node ??= $workspace->find(RowType::Node, Uuid::fromString((string) $values[$end]))?->values();
            if (null === $node) {
                return null;
            }
            $ends[] = new Point((float) $node['x'], (float) $node['y']);
        }

        return Wall::core($id, $values, ...$ends);
    }
}
