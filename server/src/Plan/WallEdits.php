<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Editing\Rework;
use Plinth\Core\Plan\Model\Line;
use Plinth\Core\Plan\Settling\StoreySettled;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Workspace;
use Symfony\Component\Uid\Uuid;

/** What changes of walls have in common: what hangs on a wall comes along. */
final readonly class WallEdits
{
    public function __construct(public Workspace $workspace, private Base $base, public string $at)
    {
    }

    public function reverse(Wall $wall): void
    {
        $core = StoreyWalls::core($this->workspace, $wall);
        $other = static fn (Hand $hand): string => Hand::Left === $hand ? Hand::Right->value : Hand::Left->value;
        foreach ($this->workspace->findBy(Opening::class, 'wall', $wall->id()) as $opening) {
            $values = $opening->values();
            $this->workspace->set($opening, [
                'offset' => Rework::reversedOffset($core, $opening->offset(), $opening->width()),
                'hand' => $other(Hand::from((string) $values['hand'])), 'swing' => $other(Hand::from((string) $values['swing'])),
            ], $this->at);
        }
        $turned = static fn (Line $line): string => match ($line) {
            Line::Left => Line::Right->value,
            Line::Right => Line::Left->value,
            Line::Centre => Line::Centre->value,
        };
        foreach (['a', 'b'] as $end) {
            foreach ($this->workspace->findBy(Figure::class, $end, $wall->id()) as $figure) {
                $this->workspace->set($figure, [$end.'Side' => $turned(Line::from((string) $figure->values()[$end.'Side']))], $this->at);
            }
        }
        $this->workspace->set($wall, [
            'fromNode' => $wall->toNode()->toRfc4122(), 'toNode' => $wall->fromNode()->toRfc4122(),
            'rise' => 0.0 === $core->rise ? 0.0 : -$core->rise, 'line' => $turned($core->line),
        ], $this->at);
    }

    /** Openings keep their place in the building when their wall begins so much earlier. */
    public function follow(Wall $wall, float $longer): void
    {
        foreach ($this->workspace->findBy(Opening::class, 'wall', $wall->id()) as $opening) {
            $this->workspace->set($opening, ['offset' => $opening->offset() + $longer], $this->at);
        }
    }

    /** A wall with its nodes, and with what else ends there, goes elsewhere; its openings keep their place along it. */
    public function lead(Wall $wall, Point $from, Point $to): void
    {
        $core = StoreyWalls::core($this->workspace, $wall);
        $moves = [];
        foreach ([[$wall->fromNode(), $core->from, $from], [$wall->toNode(), $core->to, $to]] as [$node, $before, $after]) {
            if ($before->distanceTo($after) > 0.0) {
                $moves[$node->toBinary()] = $after;
            }
        }
        StoreyWalls::move($this->workspace, $moves, $this->base, $this->at);
        $this->follow($wall, StoreySettled::along($core->from, $from, $to));
    }

    /** @param list<Uuid> $nodes */
    public function removeUnused(array $nodes): void
    {
        foreach (array_unique($nodes) as $node) {
            if (0 === $this->endingAt($node)) {
                $this->workspace->remove($this->workspace->get(Node::class, $node), $this->at);
            }
        }
    }

    /** @return int ends of walls at a node */
    public function endingAt(Uuid $node): int
    {
        return \count($this->workspace->findBy(Wall::class, 'fromNode', $node))
            + \count($this->workspace->findBy(Wall::class, 'toNode', $node));
    }
}
