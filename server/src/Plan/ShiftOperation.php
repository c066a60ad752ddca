<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Editing\Exception\UnusableEdit;
use Plinth\Core\Plan\Model\Line;
use Plinth\Core\Plan\Model\Wall as CoreWall;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operation;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Symfony\Component\Uid\Uuid;

/**
 * Moves a wall across itself, makes it as long as stated, or moves nodes as they were dragged, with all that is joined to them; or gives
 * walls another
 * thickness, the line that was traced staying where it is.
 */
final readonly class ShiftOperation implements Operation
{
    public static function name(): string
    {
        return 'shift';
    }

    public function apply(Workspace $workspace, JsonValue $shift, Base $base): void
    {
        $shift->object(['wall', 'left', 'length', 'holds', 'nodes', 'walls', 'thickness']);
        try {
            if (null !== $shift->optional('thickness')) {
                $this->thicken($workspace, $shift, $base);

                return;
            }
            if (null !== $shift->optional('wall')) {
                $wall = $workspace->current(Wall::class, RowValues::uuid($shift->get('wall')), $base, $shift->at.'/wall');
                if (null !== $shift->optional('length')) {
                    $startStays = 'to' !== ($shift->optional('holds')?->word(['from', 'to']) ?? 'from');
                    StoreyWalls::lengthen($workspace, $wall, $shift->get('length')->positive(), $startStays, $base, $shift->at);

                    return;
                }
                $moved = StoreyWalls::round($workspace, [$wall])->across($wall->id()->toBinary(), $shift->get('left')->number());
            } else {
                $to = [];
                $storey = null;
                foreach ($shift->list('nodes') as $node) {
                    $node->object(['id', 'x', 'y']);
                    $row = $workspace->current(Node::class, RowValues::uuid($node->get('id')), $base, $node->at);
                    $storey ??= $row->storey();
                    if (!$storey->equals($row->storey())) {
                        throw Refusal::invalid('two-storeys', 'Nodes that are moved together lie on one storey.', $node->at);
                    }
                    $to[$row->id()->toBinary()] = new Point($node->get('x')->number(), $node->get('y')->number());
                }
                if (null === $storey) {
                    throw Refusal::invalid('nothing-moved', 'Name a wall, or the nodes that are moved.', $shift->at);
                }
                $walls = [];
                foreach (array_keys($to) as $id) {
                    foreach (['fromNode', 'toNode'] as $end) {
                        $walls = [...$walls, ...$workspace->findBy(Wall::class, $end, Uuid::fromBinary($id))];
                    }
                }
                $moved = [] === $walls ? $to : StoreyWalls::round($workspace, $walls)->nodes($to);
            }
        } catch (UnusableEdit $e) {
            throw Refusal::invalid($e->why(), $e->getMessage(), $shift->at);
        }
        StoreyWalls::carry($workspace, $moved, $base, $shift->at);
    }

    /** @throws UnusableEdit */
    private function thicken(Workspace $workspace, JsonValue $shift, Base $base): void
    {
        $thickness = $shift->get('thickness')->positive(CoreWall::THICKEST_MM);
        $done = [];
        foreach ($shift->list('walls') as $named) {
            $wall = $workspace->current(Wall::class, RowValues::uuid($named), $base, $named->at);
            $id = $wall->id()->toBinary();
            $core = StoreyWalls::core($workspace, $wall);
            $more = ($thickness - $core->thickness) / 2.0;
            $workspace->set($wall, ['thickness' => $thickness, 'buildUp' => null], $named->at);
            if (Line::Centre !== $core->line && null === $core->arc() && !isset($done[$id])) {
                $moves = StoreyWalls::round($workspace, [$wall]);
                // What goes straight on goes along, once.
                $done += array_fill_keys($moves->run($id), true);
                StoreyWalls::carry($workspace, $moves->across($id, Line::Left === $core->line ? -$more : $more), $base, $named->at);
            }
        }
    }
}
