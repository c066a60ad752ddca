<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\DBAL\Connection;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Divider as CoreDivider;
use Plinth\Core\Plan\Model\Storey as CoreStorey;
use Plinth\Core\Plan\Model\Wall as CoreWall;
use Plinth\Core\Units\Length;
use Plinth\Server\Change\Aftermath;
use Plinth\Server\Change\Follower;
use Plinth\Server\Change\Occasion;
use Plinth\Server\Change\Raw;
use Plinth\Server\Change\RowId;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Project\Storey;
use Plinth\Server\SettingOut\Column;
use Symfony\Component\Uid\Uuid;

/** Keeps the plan's rules while rows change, and what is derived from them. */
final readonly class PlanKeeper implements Follower, Aftermath
{
    /** A terrace of forty houses is shorter; common practice, no source. */
    public const LONGEST_MM = 1e6;

    public function __construct(private Connection $connection, private DerivedShapes $shapes)
    {
    }

    public static function place(): int
    {
        return 20; // fits carry walls along
    }

    /** Walls keep a length, their boxes stay true, and openings stay narrower than their walls. */
    public function follow(Workspace $workspace, Occasion $occasion): void
    {
        $walls = [];
        foreach ($workspace->touched(Wall::class) as $wall) {
            $walls[$wall->id()->toRfc4122()] = $wall;
        }
        $workspace->readAll(
            Node::class,
            array_merge(...array_map(static fn (Wall $w): array => [$w->fromNode(), $w->toNode()], array_values($walls))),
        );
        $moved = array_filter(
            $workspace->touched(Node::class),
            static fn (Node $n): bool => null !== $workspace->was(Node::class, $n->id()),
        );
        foreach (['fromNode', 'toNode'] as $end) {
            $workspace->findAllBy(Wall::class, $end, array_map(static fn (Node $n): Uuid => $n->id(), array_values($moved)));
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
            $lengths[$id] = $wall->span(
                $workspace->get(Node::class, $wall->fromNode())->at(),
                $workspace->get(Node::class, $wall->toNode())->at(),
            )->length();
            if ($lengths[$id] > self::LONGEST_MM) {
                throw Refusal::invalid(
                    'wall-too-long',
                    \sprintf(
                        'This wall is %.0f m long; the longest that is drawn in one piece is %d m. Check the unit.',
                        $lengths[$id] / 1e3,
                        self::LONGEST_MM / 1e3,
                    ),
                    $id,
                );
            }
        }
        foreach ($workspace->touched(Opening::class) as $opening) {
            $id = $opening->wall()->toRfc4122();
            if (!isset($lengths[$id])) {
                $wall = $workspace->get(Wall::class, $opening->wall());
                $lengths[$id] = $wall->span(
                    $workspace->get(Node::class, $wall->fromNode())->at(),
                    $workspace->get(Node::class, $wall->toNode())->at(),
                )->length();
            }
            if ($opening->width() > $lengths[$id]) {
                throw Refusal::invalid(
                    'opening-too-wide',
                    \sprintf(
                        'The opening is %s wide, its wall only %s long: make it narrower, or choose a longer wall.',
                        Length::told($opening->width()),
                        Length::told($lengths[$id]),
                    ),
                    $opening->id()->toRfc4122().'/width',
                );
            }
        }
    }

    /** Derives what the change has touched on every storey. */
    public function after(Workspace $workspace, int $revision): void
    {
        foreach ($this->touched($workspace) as $storey => $touched) {
            $this->shapes->update(new RowId($workspace->project(), Uuid::fromString($storey)), $revision, $touched);
        }
    }

    /** The storey as the core knows it. */
    public function load(RowId $storey): CoreStorey
    {
        $head = $this->connection->fetchAssociative(
            'SELECT name, elevation, height FROM storey WHERE project = ? AND id = ?',
            $storey->binary(),
        );
        $near = new StoreyNear($this->connection, $storey);
        $lines = $near->lines($near->bounds() ?? [0.0, 0.0, 0.0, 0.0]);
        $walls = array_values(array_filter($lines, static fn ($l): bool => $l instanceof CoreWall));
        $everywhere = [-\INF, -\INF, \INF, \INF];

        return new CoreStorey(
            $storey->id->toRfc4122(),
            Raw::text($head['name'] ?? ''),
            Raw::number($head['elevation'] ?? 0.0),
            Raw::number($head['height'] ?? 2700.0),
            $walls,
            $near->openings(array_map(static fn (CoreWall $w): string => $w->id, $walls)),
            $near->rooms($everywhere),
            array_values(array_filter($lines, static fn ($l): bool => $l instanceof CoreDivider)),
            $near->columns($everywhere),
            SettlesStoreys::figures($this->connection, $storey),
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
        foreach ($workspace->before() as [$class, $id, $before]) {
            $row = $workspace->find($class, $id);
            $states = array_filter([$before, $row?->values()], static fn (?array $v): bool => null !== $v);
            switch ($class) {
                case Wall::class:
                    $walls[$id->toRfc4122()] = $id;
                    break;
                case Node::class:
                    foreach (null === $row || null === $before ? [] : ['fromNode', 'toNode'] as $end) {
                        foreach ($workspace->findBy(Wall::class, $end, $id) as $wall) {
                            $walls[$wall->id()->toRfc4122()] = $wall->id();
                        }
                    }
                    break;
                case Opening::class:
                    foreach ($states as $values) {
                        $wall = $workspace->find(Wall::class, Uuid::fromString((string) $values['wall']));
                        if (null !== $wall) {
                            $of($wall->storey()->toRfc4122())->reshaped[$wall->id()->toRfc4122()] = StoreyWalls::core($workspace, $wall);
                        }
                    }
                    break;
                case Room::class:
                    foreach ($states as $values) {
                        $of($values['storey'])->points[] = new Point((float) $values['x'], (float) $values['y']);
                        $of($values['storey'])->rooms[] = $id->toRfc4122();
                    }
                    break;
                case Divider::class:
                    foreach ($states as $values) {
                        $of($values['storey'])->line(
                            $id->toRfc4122(),
                            null === $before ? null : Divider::core($id->toRfc4122(), $before),
                            null === $row ? null : Divider::core($id->toRfc4122(), $row->values()),
                        );
                    }
                    break;
                case Column::class:
                    foreach ($states as $values) {
                        [$x, $y, $w, $d] = [
                            (float) $values['x'],
                            (float) $values['y'],
                            (float) $values['width'] / 2.0,
                            (float) $values['depth'] / 2.0,
                        ];
                        foreach ([[0.0, 0.0], [-$w, -$d], [$w, -$d], [$w, $d], [-$w, $d]] as [$dx, $dy]) {
                            $of($values['storey'])->points[] = new Point($x + $dx, $y + $dy);
                        }
                    }
                    break;
                case Storey::class:
                    if (null === $before) {
                        $of($id->toRfc4122()); // empty, it has been derived all the same
                    }
                    break;
                default:
            }
        }
        foreach ($walls as $key => $id) {
            $row = $workspace->find(Wall::class, $id);
            $after = $row?->values();
            $before = $workspace->hasTouched(Wall::class, $id) ? $workspace->was(Wall::class, $id) : $after;
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
            $at = Uuid::fromString((string) $values[$end]);
            $node = ($before ? $workspace->was(Node::class, $at) : null) ?? $workspace->find(Node::class, $at)?->values();
            if (null === $node) {
                return null;
            }
            $ends[] = new Point((float) $node['x'], (float) $node['y']);
        }

        return Wall::core($id, $values, ...$ends);
    }
}
