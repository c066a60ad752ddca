<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Exception\UnusableEdit;
use Plinth\Core\Plan\Line;
use Plinth\Core\Plan\Rework;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operation;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Symfony\Component\Uid\Uuid;

/** Splits, joins, turns round, ends and copies walls. */
final readonly class ReworkOperation implements Operation
{
    public static function name(): string
    {
        return 'rework';
    }

    public function apply(Workspace $workspace, JsonValue $rework, Base $base): void
    {
        $rework->object(['kind', 'wall', 'other', 'along', 'atStart', 'left', 'node', 'secondNode', 'newWall']);
        $wall = $this->wall($workspace, $rework, 'wall', $base);
        try {
            match ($rework->get('kind')->word(['split', 'join', 'reverse', 'end', 'beside'])) {
                'split' => $this->split($workspace, $wall, $rework),
                'join' => $this->join($workspace, $wall, $this->wall($workspace, $rework, 'other', $base), $rework),
                'reverse' => $this->reverse($workspace, $wall, $rework->at),
                'end' => $this->end($workspace, $wall, $this->wall($workspace, $rework, 'other', $base), $rework, $base),
                default => $this->beside($workspace, $wall, $rework),
            };
        } catch (UnusableEdit $e) {
            throw Refusal::invalid($e->reason, $e->getMessage(), $rework->at);
        }
    }

    private function split(Workspace $workspace, Wall $wall, JsonValue $rework): void
    {
        $along = $rework->get('along')->number();
        $parts = Rework::split(StoreyWalls::core($workspace, $wall), $along);
        $openings = $workspace->findBy(Opening::class, 'wall', $wall->id());
        foreach ($openings as $opening) {
            if ($opening->offset() < $along && $opening->offset() + $opening->width() > $along) {
                throw Refusal::invalid('opening-on-cut', 'A door or window lies where the wall would be cut: cut beside it.', $rework->at.'/along');
            }
        }
        $node = $this->addNode($workspace, RowValues::uuid($rework->get('node')), $wall, $parts['at'], $rework->at);
        $values = $wall->values();
        $workspace->set($wall, ['toNode' => $node, 'rise' => $parts['first']], $rework->at);
        $second = RowValues::uuid($rework->get('newWall'));
        $workspace->add(Wall::class, $second, ['fromNode' => $node, 'rise' => $parts['second']] + $values, $rework->at);
        foreach ($openings as $opening) {
            if ($opening->offset() >= $along) {
                $workspace->set($opening, ['wall' => $second->toRfc4122(), 'offset' => $opening->offset() - $along], $rework->at);
            }
        }
    }

    private function join(Workspace $workspace, Wall $first, Wall $second, JsonValue $rework): void
    {
        $shared = array_values(array_intersect([$first->fromNode()->toRfc4122(), $first->toNode()->toRfc4122()], [$second->fromNode()->toRfc4122(), $second->toNode()->toRfc4122()]));
        $node = 1 === \count($shared) ? Uuid::fromString($shared[0]) : throw UnusableEdit::onlyStraightOn();
        if (2 !== \count($workspace->findBy(Wall::class, 'fromNode', $node)) + \count($workspace->findBy(Wall::class, 'toNode', $node))) {
            throw UnusableEdit::onlyStraightOn();
        }
        // As if the first ended where the second starts.
        if ($first->fromNode()->equals($node)) {
            $this->reverse($workspace, $first, $rework->at);
        }
        if ($second->toNode()->equals($node)) {
            $this->reverse($workspace, $second, $rework->at);
        }
        $one = StoreyWalls::core($workspace, $first);
        $rise = Rework::joined($one, StoreyWalls::core($workspace, $second));
        foreach ($workspace->findBy(Opening::class, 'wall', $second->id()) as $opening) {
            $workspace->set($opening, ['wall' => $first->id()->toRfc4122(), 'offset' => $opening->offset() + $one->length()], $rework->at);
        }
        foreach (['a', 'b'] as $end) {
            foreach ($workspace->findBy(Figure::class, $end, $second->id()) as $figure) {
                $workspace->set($figure, [$end => $first->id()->toRfc4122()], $rework->at);
            }
        }
        $to = $second->toNode()->toRfc4122();
        $workspace->remove($second, $rework->at);
        $workspace->set($first, ['toNode' => $to, 'rise' => $rise], $rework->at);
        $workspace->remove($workspace->get(Node::class, $node), $rework->at);
    }

    private function reverse(Workspace $workspace, Wall $wall, string $at): void
    {
        $core = StoreyWalls::core($workspace, $wall);
        $other = static fn (Hand $hand): string => Hand::Left === $hand ? Hand::Right->value : Hand::Left->value;
        foreach ($workspace->findBy(Opening::class, 'wall', $wall->id()) as $opening) {
            $values = $opening->values();
            $workspace->set($opening, [
                'offset' => Rework::reversedOffset($core, $opening->offset(), $opening->width()),
                'hand' => $other(Hand::from((string) $values['hand'])), 'swing' => $other(Hand::from((string) $values['swing'])),
            ], $at);
        }
        $turned = static fn (Line $line): string => match ($line) {
            Line::Left => Line::Right->value,
            Line::Right => Line::Left->value,
            Line::Centre => Line::Centre->value,
        };
        foreach (['a', 'b'] as $end) {
            foreach ($workspace->findBy(Figure::class, $end, $wall->id()) as $figure) {
                $workspace->set($figure, [$end.'Side' => $turned(Line::from((string) $figure->values()[$end.'Side']))], $at);
            }
        }
        $workspace->set($wall, [
            'fromNode' => $wall->toNode()->toRfc4122(), 'toNode' => $wall->fromNode()->toRfc4122(),
            'rise' => 0.0 === $core->rise ? 0.0 : -$core->rise, 'line' => $turned($core->line),
        ], $at);
    }

    private function end(Workspace $workspace, Wall $wall, Wall $host, JsonValue $rework, Base $base): void
    {
        $atStart = $rework->get('atStart')->boolean();
        $core = StoreyWalls::core($workspace, $wall);
        $other = StoreyWalls::core($workspace, $host);
        $to = Rework::endAt($core, $atStart, $other);
        $node = $atStart ? $wall->fromNode() : $wall->toNode();
        $before = $core->length();
        if (1 < \count($workspace->findBy(Wall::class, 'fromNode', $node)) + \count($workspace->findBy(Wall::class, 'toNode', $node))) {
            // Others end there too, and stay.
            $new = $this->addNode($workspace, RowValues::uuid($rework->get('node')), $wall, $to, $rework->at);
            $workspace->set($wall, [$atStart ? 'fromNode' : 'toNode' => $new], $rework->at);
        } else {
            StoreyWalls::move($workspace, [$node->toBinary() => $to], $base, $rework->at);
        }
        $longer = StoreyWalls::core($workspace, $wall)->length() - $before;
        // Where the other wall does not reach so far, both go on to the corner.
        $short = Rework::endShortOf($other, $to);
        $end = null === $short ? null : ($short ? $host->fromNode() : $host->toNode());
        if (null !== $end && 1 === \count($workspace->findBy(Wall::class, 'fromNode', $end)) + \count($workspace->findBy(Wall::class, 'toNode', $end))) {
            $more = $other->length();
            StoreyWalls::move($workspace, [$end->toBinary() => $to], $base, $rework->at);
            $this->follow($workspace, $host, $short, StoreyWalls::core($workspace, $host)->length() - $more, $rework->at);
        }
        $this->follow($workspace, $wall, $atStart, $longer, $rework->at);
    }

    /** Openings keep their place in the building when their wall begins elsewhere. */
    private function follow(Workspace $workspace, Wall $wall, bool $atStart, float $longer, string $at): void
    {
        foreach ($atStart ? $workspace->findBy(Opening::class, 'wall', $wall->id()) : [] as $opening) {
            $workspace->set($opening, ['offset' => $opening->offset() + $longer], $at);
        }
    }

    private function beside(Workspace $workspace, Wall $wall, JsonValue $rework): void
    {
        $beside = Rework::beside(StoreyWalls::core($workspace, $wall), $rework->get('left')->number());
        $workspace->add(Wall::class, RowValues::uuid($rework->get('newWall')), [
            'fromNode' => $this->addNode($workspace, RowValues::uuid($rework->get('node')), $wall, $beside['from'], $rework->at),
            'toNode' => $this->addNode($workspace, RowValues::uuid($rework->get('secondNode')), $wall, $beside['to'], $rework->at),
            'rise' => $beside['rise'], 'evidence' => Evidence::Figure->value,
        ] + $wall->values(), $rework->at);
    }

    private function addNode(Workspace $workspace, Uuid $id, Wall $wall, Point $at, string $where): string
    {
        $drawing = $workspace->get(Node::class, $wall->fromNode())->values()['drawing'];
        $workspace->add(Node::class, $id, ['storey' => $wall->storey()->toRfc4122(), 'drawing' => $drawing, 'x' => $at->x, 'y' => $at->y], $where);

        return $id->toRfc4122();
    }

    private function wall(Workspace $workspace, JsonValue $rework, string $key, Base $base): Wall
    {
        $wall = $workspace->current(Wall::class, RowValues::uuid($rework->get($key)), $base, $rework->at.'/'.$key);

        return $wall;
    }
}
