<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Editing\Exception\UnusableEdit;
use Plinth\Core\Plan\Editing\Mend;
use Plinth\Core\Plan\Editing\MendAct;
use Plinth\Core\Plan\Editing\Rework;
use Plinth\Core\Plan\Model\Line;
use Plinth\Core\Plan\Settling\StoreySettled;
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
            match ($rework->get('kind')->word(['split', 'join', 'reverse', 'end', 'beside', 'mend'])) {
                'split' => $this->split($workspace, $wall, $rework),
                'join' => $this->join($workspace, $wall, $this->wall($workspace, $rework, 'other', $base), $rework),
                'reverse' => $this->reverse($workspace, $wall, $rework->at),
                'end' => $this->end($workspace, $wall, $this->wall($workspace, $rework, 'other', $base), $rework, $base),
                'beside' => $this->beside($workspace, $wall, $rework),
                default => $this->mend($workspace, $wall, $this->wall($workspace, $rework, 'other', $base), $base, $rework->at),
            };
        } catch (UnusableEdit $e) {
            throw Refusal::invalid($e->why(), $e->getMessage(), $rework->at);
        }
    }

    private function split(Workspace $workspace, Wall $wall, JsonValue $rework): void
    {
        $along = $rework->get('along')->number();
        $parts = Rework::split(StoreyWalls::core($workspace, $wall), $along);
        $openings = $workspace->findBy(Opening::class, 'wall', $wall->id());
        foreach ($openings as $opening) {
            if ($opening->offset() < $along && $opening->offset() + $opening->width() > $along) {
                throw Refusal::invalid(
                    'opening-on-cut',
                    'A door or window lies where the wall would be cut: cut beside it.',
                    $rework->at.'/along',
                );
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
        $shared = array_values(
            array_intersect(
                [$first->fromNode()->toRfc4122(), $first->toNode()->toRfc4122()],
                [$second->fromNode()->toRfc4122(), $second->toNode()->toRfc4122()],
            ),
        );
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
        if (
            null !== $end
            && 1 === \count($workspace->findBy(Wall::class, 'fromNode', $end)) + \count($workspace->findBy(Wall::class, 'toNode', $end))
        ) {
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

    private function mend(Workspace $workspace, Wall $first, Wall $second, Base $base, string $at): void
    {
        if ($first === $second) {
            throw UnusableEdit::sameTwice();
        }
        $mend = Mend::of(StoreyWalls::core($workspace, $first), StoreyWalls::core($workspace, $second));
        [$wall, $other] = $mend->wall === $first->id()->toRfc4122() ? [$first, $second] : [$second, $first];
        switch ($mend->act) {
            case MendAct::Merge:
                $this->merge($workspace, $wall, $other, $mend, $at);
                break;
            case MendAct::Remove:
                $ends = [$wall->fromNode(), $wall->toNode()];
                $workspace->remove($wall, $at);
                $this->removeUnused($workspace, $ends, $at);
                break;
            case MendAct::Beside:
            case MendAct::Trim:
                $this->lead($workspace, $wall, $mend->from, $mend->to, $base, $at);
                if (MendAct::Trim === $mend->act && null !== $mend->ends[1]) {
                    $core = StoreyWalls::core($workspace, $other);
                    $corner = true === $mend->ends[0] ? $mend->from : $mend->to;
                    $this->lead(
                        $workspace,
                        $other,
                        $mend->ends[1] ? $corner : $core->from,
                        $mend->ends[1] ? $core->to : $corner,
                        $base,
                        $at,
                    );
                }
        }
    }

    /** A wall with its nodes, and with what else ends there, goes elsewhere; its openings keep their place along it. */
    private function lead(Workspace $workspace, Wall $wall, Point $from, Point $to, Base $base, string $at): void
    {
        $core = StoreyWalls::core($workspace, $wall);
        $moves = [];
        foreach ([[$wall->fromNode(), $core->from, $from], [$wall->toNode(), $core->to, $to]] as [$node, $before, $after]) {
            if ($before->distanceTo($after) > 0.0) {
                $moves[$node->toBinary()] = $after;
            }
        }
        StoreyWalls::move($workspace, $moves, $base, $at);
        $this->follow($workspace, $wall, true, StoreySettled::along($core->from, $from, $to), $at);
    }

    /** The other wall goes on as far as both reached; doors and windows that both have stay once. */
    private function merge(Workspace $workspace, Wall $wall, Wall $other, Mend $mend, string $at): void
    {
        $core = StoreyWalls::core($workspace, $wall);
        $stays = StoreyWalls::core($workspace, $other);
        $this->follow($workspace, $other, true, StoreySettled::along($stays->from, $mend->from, $mend->to), $at);
        $runsBack = ($core->to->x - $core->from->x) * ($mend->to->x - $mend->from->x) + ($core->to->y - $core->from->y) * ($mend->to->y - $mend->from->y) < 0.0;
        if ($runsBack) {
            $this->reverse($workspace, $wall, $at);
            $core = StoreyWalls::core($workspace, $wall);
        }
        $shift = StoreySettled::along($core->from, $mend->from, $mend->to);
        $taken = array_map(
            static fn (Opening $o): array => [$o->offset(), $o->offset() + $o->width()],
            $workspace->findBy(Opening::class, 'wall', $other->id()),
        );
        foreach ($workspace->findBy(Opening::class, 'wall', $wall->id()) as $opening) {
            $start = $opening->offset() + $shift;
            $isDouble = [] !== array_filter($taken, static fn (array $t): bool => $start < $t[1] && $t[0] < $start + $opening->width());
            if ($isDouble) {
                $workspace->remove($opening, $at);
            } else {
                $workspace->set($opening, ['wall' => $other->id()->toRfc4122(), 'offset' => $start], $at);
            }
        }
        foreach (['a', 'b'] as $end) {
            foreach ($workspace->findBy(Figure::class, $end, $wall->id()) as $figure) {
                $isBetween = $other->id()->toRfc4122() === $figure->values()['a' === $end ? 'b' : 'a'];
                $isBetween ? $workspace->remove($figure, $at) : $workspace->set($figure, [$end => $other->id()->toRfc4122()], $at);
            }
        }
        $all = [$wall->fromNode(), $wall->toNode(), $other->fromNode(), $other->toNode()];
        $node = static fn (bool $start): string => ($start !== $runsBack ? $wall->fromNode() : $wall->toNode())->toRfc4122();
        $ends = array_filter(
            [
                'fromNode' => null === $mend->ends[0] ? null : $node($mend->ends[0]),
                'toNode' => null === $mend->ends[1] ? null : $node($mend->ends[1]),
            ],
            static fn (?string $id): bool => null !== $id,
        );
        $workspace->remove($wall, $at);
        $workspace->set($other, $ends, $at);
        $this->removeUnused($workspace, $all, $at);
    }

    /** @param list<Uuid> $nodes */
    private function removeUnused(Workspace $workspace, array $nodes, string $at): void
    {
        foreach (array_unique($nodes) as $node) {
            if (0 === \count($workspace->findBy(
                Wall::class,
                'fromNode',
                $node,
            )) + \count($workspace->findBy(Wall::class, 'toNode', $node))) {
                $workspace->remove($workspace->get(Node::class, $node), $at);
            }
        }
    }

    private function addNode(Workspace $workspace, Uuid $id, Wall $wall, Point $at, string $where): string
    {
        $drawing = $workspace->get(Node::class, $wall->fromNode())->values()['drawing'];
        $workspace->add(
            Node::class,
            $id,
            ['storey' => $wall->storey()->toRfc4122(), 'drawing' => $drawing, 'x' => $at->x, 'y' => $at->y],
            $where,
        );

        return $id->toRfc4122();
    }

    private function wall(Workspace $workspace, JsonValue $rework, string $key, Base $base): Wall
    {
        $wall = $workspace->current(Wall::class, RowValues::uuid($rework->get($key)), $base, $rework->at.'/'.$key);

        return $wall;
    }
}
