<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Fit\Traced;
use Plinth\Server\Source\Drawing;

/** Nodes with their walls, dividers and names of rooms that were traced over a drawing. */
final readonly class TracedPlan implements Traced
{
    public function carry(Workspace $workspace, Drawing $drawing, PixelToMm $old, PixelToMm $next): void
    {
        foreach ($workspace->findBy(Node::class, 'drawing', $drawing->id()) as $node) {
            $px = $old->toPixel($node->at());
            $to = $next->toMm($px);
            $ratio = $next->mmPerPixelAt($px) / $old->mmPerPixelAt($px);
            $workspace->set($node, ['x' => $to->x, 'y' => $to->y], 'carry');
            foreach ($workspace->findBy(Wall::class, 'fromNode', $node->id()) as $wall) {
                if (0.0 !== $wall->rise()) {
                    $workspace->set($wall, ['rise' => $wall->rise() * $ratio], 'carry');
                }
                foreach ($workspace->findBy(Opening::class, 'wall', $wall->id()) as $opening) {
                    $workspace->set($opening, ['offset' => $opening->offset() * $ratio], 'carry');
                }
            }
        }
        foreach ($workspace->findBy(Divider::class, 'drawing', $drawing->id()) as $divider) {
            $line = Divider::core('', $divider->values());
            $px = $old->toPixel($line->from);
            $from = $next->toMm($px);
            $to = $next->toMm($old->toPixel($line->to));
            $rise = $line->rise * $next->mmPerPixelAt($px) / $old->mmPerPixelAt($px);
            $workspace->set($divider, ['x1' => $from->x, 'y1' => $from->y, 'x2' => $to->x, 'y2' => $to->y, 'rise' => $rise], 'carry');
        }
        foreach ($workspace->findBy(Room::class, 'drawing', $drawing->id()) as $room) {
            $to = $next->toMm($old->toPixel($room->anchor()));
            $workspace->set($room, ['x' => $to->x, 'y' => $to->y], 'carry');
        }
    }

    public function places(Workspace $workspace, Drawing $drawing): array
    {
        return array_map(static function (Node $node) use ($workspace): Point {
            $at = $workspace->was(Node::class, $node->id()) ?? $node->values();

            return new Point((float) $at['x'], (float) $at['y']);
        }, $workspace->findBy(Node::class, 'drawing', $drawing->id()));
    }
}
