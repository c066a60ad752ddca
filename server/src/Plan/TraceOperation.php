<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Editing\Rework;
use Plinth\Core\Plan\Editing\TracedChain;
use Plinth\Core\Plan\Model\Line;
use Plinth\Core\Plan\Model\Wall as CoreWall;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operation;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Symfony\Component\Uid\Uuid;

/**
 * Traces a chain of walls, or goes on with one: the client sends the whole chain as clicked, along whichever line of the
 * wall, with ids for its nodes and walls; those already there are moved, the rest are added.
 */
final readonly class TraceOperation implements Operation
{
    public static function name(): string
    {
        return 'trace';
    }

    public function apply(Workspace $workspace, JsonValue $trace, Base $base): void
    {
        $trace->object([
            'storey', 'drawing', 'points', 'nodes', 'walls', 'closed', 'line', 'thickness', 'height', 'evidence', 'joins',
            'rises', 'enclosing', 'buildUp',
        ]);
        $points = array_map(static fn (JsonValue $p): Point => new Point(...$p->pair()), $trace->list('points'));
        $nodes = array_map(RowValues::uuid(...), $trace->list('nodes'));
        $walls = array_map(RowValues::uuid(...), $trace->list('walls'));
        $closed = $trace->optional('closed')?->boolean() ?? false;
        $n = \count($points);
        if ($n < ($closed ? 3 : 2) || \count($nodes) !== $n || \count($walls) !== ($closed ? $n : $n - 1)) {
            throw Refusal::invalid(
                'bad-chain',
                'A chain needs two points or more, one node for each point and one wall between each two.',
                $trace->at.'/points',
            );
        }
        foreach ($walls as $i => $_) {
            if ($points[$i]->distanceTo($points[($i + 1) % $n]) <= CoreWall::JOIN_MM) {
                throw Refusal::invalid(
                    'wall-of-no-length',
                    'A wall needs a length: two points of the chain lie on one spot.',
                    $trace->at.'/points/'.(($i + 1) % $n),
                );
            }
        }
        $thickness = $trace->get('thickness')->positive(CoreWall::THICKEST_MM);
        $line = $trace->get('line')->choice(Line::class);
        $rises = array_map(static fn (JsonValue $r): float => $r->number(), $trace->list('rises'));
        if (2 === $n && 0.0 !== ($rises[0] ?? 0.0) && Line::Centre !== $line) {
            // Beside an arc lies an arc about the same centre.
            $beside = Rework::beside(
                new CoreWall('', $points[0], $points[1], $thickness, rise: $rises[0]),
                (Line::Left === $line ? -1.0 : 1.0) * $thickness / 2.0,
            );
            $centre = [$beside['from'], $beside['to']];
            $rises = [$beside['rise']];
        } else {
            $centre = TracedChain::centreLine($points, $line, $thickness, $closed);
        }
        foreach ($trace->list('joins') as $join) {
            $join->object(['point', 'wall']);
            $i = (int) $join->get('point')->notNegative();
            if ($closed || (0 !== $i && $i !== $n - 1)) {
                throw Refusal::invalid('bad-chain', 'Only the first and last point of an open chain can join a wall.', $join->at.'/point');
            }
            $host = $workspace->get(Wall::class, RowValues::uuid($join->get('wall')));
            $centre[$i] = TracedChain::join($centre[0 === $i ? 1 : $n - 2], $centre[$i], $this->core($workspace, $host));
        }
        $storey = $trace->get('storey')->text();
        $drawing = $trace->optional('drawing')?->text();
        foreach ($centre as $i => $point) {
            $values = ['storey' => $storey, 'drawing' => $drawing, 'x' => $point->x, 'y' => $point->y];
            $this->addOrSet($workspace, Node::class, $nodes[$i], $values, $base, $trace->at.'/nodes/'.$i);
        }
        foreach ($walls as $i => $id) {
            $isNew = null === $workspace->find(Wall::class, $id);
            $this->addOrSet($workspace, Wall::class, $id, [
                'storey' => $storey,
                'fromNode' => $nodes[$i]->toRfc4122(),
                'toNode' => $nodes[($i + 1) % $n]->toRfc4122(),
                'thickness' => $thickness,
                'height' => $trace->optional('height')?->positive(),
                'line' => $line->value,
                'rise' => $rises[$i] ?? 0.0,
                'enclosing' => $trace->optional('enclosing')?->boolean() ?? true,
                'buildUp' => $trace->optional('buildUp')?->text(),
                // What earlier walls of the chain rest on is not changed by how the latest was drawn.
            ] + ($isNew ? [
                'evidence' => $trace->optional('evidence')?->text()
                ?? Evidence::Ink->value,
            ] : []), $base, $trace->at.'/walls/'.$i);
        }
    }

    /**
     * @param class-string<ProjectRow> $class
     * @param array<string, scalar|null> $values
     */
    private function addOrSet(Workspace $workspace, string $class, Uuid $id, array $values, Base $base, string $at): void
    {
        if (null === $workspace->find($class, $id)) {
            $workspace->add($class, $id, $values, $at);
        } else {
            $workspace->set($workspace->current($class, $id, $base, $at), $values, $at);
        }
    }

    private function core(Workspace $workspace, Wall $wall): CoreWall
    {
        return $wall->span($workspace->get(Node::class, $wall->fromNode())->at(), $workspace->get(Node::class, $wall->toNode())->at());
    }
}
