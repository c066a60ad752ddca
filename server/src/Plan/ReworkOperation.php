<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Editing\Exception\UnusableEdit;
use Plinth\Core\Plan\Editing\Rework;
use Plinth\Core\Plan\Model\Wall as CoreWall;
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
        $edits = new WallEdits($workspace, $base, $rework->at);
        try {
            match ($rework->get('kind')->word(['split', 'join', 'reverse', 'end', 'beside', 'mend'])) {
                'split' => $this->split($workspace, $wall, $rework),
                'join' => $this->join($workspace, $wall, $this->wall($workspace, $rework, 'other', $base), $edits, $rework->at),
                'reverse' => $edits->reverse($wall),
                'end' => $this->end($workspace, $wall, $this->wall($workspace, $rework, 'other', $base), $edits, $rework, $base),
                'beside' => $this->beside($workspace, $wall, $rework),
                default => (new Mending($edits))->mend($wall, $this->wall($workspace, $rework, 'other', $base)),
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

    private function join(Workspace $workspace, Wall $first, Wall $second, WallEdits $edits, string $at): void
    {
        $shared = array_values(
            array_intersect(
                [$first->fromNode()->toRfc4122(), $first->toNode()->toRfc4122()],
                [$second->fromNode()->toRfc4122(), $second->toNode()->toRfc4122()],
            ),
        );
        $node = 1 === \count($shared) ? Uuid::fromString($shared[0]) : throw UnusableEdit::onlyStraightOn();
        if (2 !== $edits->endingAt($node)) {
            throw UnusableEdit::onlyStraightOn();
        }
        // As if the first ended where the second starts.
        if ($first->fromNode()->equals($node)) {
            $edits->reverse($first);
        }
        if ($second->toNode()->equals($node)) {
            $edits->reverse($second);
        }
        $one = StoreyWalls::core($workspace, $first);
        $rise = Rework::joined($one, StoreyWalls::core($workspace, $second));
        foreach ($workspace->findBy(Opening::class, 'wall', $second->id()) as $opening) {
            $workspace->set($opening, ['wall' => $first->id()->toRfc4122(), 'offset' => $opening->offset() + $one->length()], $at);
        }
        foreach (['a', 'b'] as $end) {
            foreach ($workspace->findBy(Figure::class, $end, $second->id()) as $figure) {
                $workspace->set($figure, [$end => $first->id()->toRfc4122()], $at);
            }
        }
        $to = $second->toNode()->toRfc4122();
        $workspace->remove($second, $at);
        $workspace->set($first, ['toNode' => $to, 'rise' => $rise], $at);
        $workspace->remove($workspace->get(Node::class, $node), $at);
    }

    private function end(Workspace $workspace, Wall $wall, Wall $host, WallEdits $edits, JsonValue $rework, Base $base): void
    {
        $atStart = $rework->get('atStart')->boolean();
        $core = StoreyWalls::core($workspace, $wall);
        $other = StoreyWalls::core($workspace, $host);
        $to = Rework::endAt($core, $atStart, $other);
        $node = $atStart ? $wall->fromNode() : $wall->toNode();
        // Where the other wall does not reach so far, both go on to the corner.
        $short = Rework::endShortOf($other, $to);
        $end = null === $short ? null : ($short ? $host->fromNode() : $host->toNode());
        $corner = null !== $end && 1 === $edits->endingAt($end) ? $end : null;
        if (null === $corner && $to->distanceTo($atStart ? $core->from : $core->to) <= CoreWall::JOIN_MM) {
            throw UnusableEdit::endsThere();
        }
        $before = $core->length();
        if (1 < $edits->endingAt($node)) {
            // Others end there too, and stay.
            $new = $this->addNode($workspace, RowValues::uuid($rework->get('node')), $wall, $to, $rework->at);
            $workspace->set($wall, [$atStart ? 'fromNode' : 'toNode' => $new], $rework->at);
        } else {
            StoreyWalls::move($workspace, [$node->toBinary() => $to], $base, $rework->at);
        }
        $longer = StoreyWalls::core($workspace, $wall)->length() - $before;
        if (null !== $corner) {
            $more = $other->length();
            StoreyWalls::move($workspace, [$corner->toBinary() => $to], $base, $rework->at);
            if ($short) {
                $edits->follow($host, StoreyWalls::core($workspace, $host)->length() - $more);
            }
        }
        if ($atStart) {
            $edits->follow($wall, $longer);
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
