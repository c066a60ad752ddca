<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operations;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Elevation\Outline;
use Plinth\Server\Elevation\OutlineCorner;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Fit\Statements;
use Plinth\Server\Plan\Divider;
use Plinth\Server\Plan\Figure;
use Plinth\Server\Plan\Node;
use Plinth\Server\Plan\Opening;
use Plinth\Server\Plan\Room;
use Plinth\Server\Plan\Wall;
use Plinth\Server\Site\Boundary;
use Plinth\Server\Site\BoundaryLeg;
use Symfony\Component\Uid\Uuid;

/**
 * Takes a source or a drawing out of a project together with what would stand on nothing: pages, drawings, picks, known
 * lengths, grid lines and fits. What was traced over it stays. The file itself is kept for as long as the change can be undone.
 */
final readonly class Removal
{
    public function source(Workspace $workspace, Source $source, string $at): void
    {
        foreach ($workspace->findBy(Page::class, 'source', $source->id()) as $page) {
            $this->page($workspace, $page, $at);
        }
        $workspace->remove($source, $at);
    }

    public function page(Workspace $workspace, Page $page, string $at): void
    {
        foreach ($workspace->findBy(Page::class, 'replaces', $page->id()) as $newer) {
            $this->page($workspace, $newer, $at);
            $source = $workspace->get(Source::class, $newer->source());
            if ([] === $workspace->findBy(Page::class, 'source', $source->id())) {
                $workspace->remove($source, $at);
            }
        }
        foreach ($workspace->findBy(Drawing::class, 'page', $page->id()) as $drawing) {
            $this->drawing($workspace, $drawing, $at);
        }
        $workspace->remove($page, $at);
    }

    public function drawing(Workspace $workspace, Drawing $drawing, string $at): void
    {
        foreach ([Node::class, Room::class, Divider::class, Figure::class, OutlineCorner::class] as $traced) {
            foreach ($workspace->findBy($traced, 'drawing', $drawing->id()) as $row) {
                $workspace->set($row, ['drawing' => null], $at);
            }
        }
        foreach (Statements::ROWS as $stated) {
            foreach ($workspace->findBy($stated, 'drawing', $drawing->id()) as $row) {
                $workspace->remove($row, $at);
            }
        }
        $fit = $workspace->find(RowType::Fit, $drawing->id());
        if ($fit instanceof DrawingFit) {
            $workspace->remove($fit, $at);
        }
        $workspace->remove($drawing, $at);
    }

    /**
     * Reads at once what removing many walls will ask for.
     *
     * @param list<Uuid> $ids
     */
    public function prepareWalls(Workspace $workspace, array $ids): void
    {
        $nodes = [];
        foreach ($ids as $id) {
            $wall = $workspace->find(RowType::Wall, $id);
            if ($wall instanceof Wall) {
                array_push($nodes, $wall->fromNode(), $wall->toNode());
            }
        }
        $workspace->prepareRemoval(RowType::Node, $nodes);
    }

    /** With its openings and figures, and the nodes that nothing else needs. */
    private function wall(Workspace $workspace, Wall $wall, Base $base, string $at): void
    {
        foreach ([[Opening::class, 'wall'], [Figure::class, 'a'], [Figure::class, 'b']] as [$class, $field]) {
            foreach ($workspace->findBy($class, $field, $wall->id()) as $row) {
                // One that somebody has added or changed meanwhile does not go unseen.
                $workspace->remove(Operations::current($workspace, $row::type(), $row->id(), $base, $at), $at);
            }
        }
        $workspace->remove($wall, $at);
        foreach ([$wall->fromNode(), $wall->toNode()] as $node) {
            if ([] === $workspace->findBy(Wall::class, 'fromNode', $node) && [] === $workspace->findBy(Wall::class, 'toNode', $node)) {
                $workspace->remove($workspace->get(Node::class, $node), $at);
            }
        }
    }

    private function outline(Workspace $workspace, Outline $outline, string $at): void
    {
        foreach ($workspace->findBy(OutlineCorner::class, 'outline', $outline->id()) as $corner) {
            $workspace->remove($corner, $at);
        }
        $workspace->remove($outline, $at);
    }

    private function boundary(Workspace $workspace, Boundary $boundary, string $at): void
    {
        foreach ($workspace->findBy(BoundaryLeg::class, 'boundary', $boundary->id()) as $leg) {
            $workspace->remove($leg, $at);
        }
        $workspace->remove($boundary, $at);
    }

    /** Removes a row of any kind that clients may remove, with what stands on it where that is a picture. */
    public function row(Workspace $workspace, ProjectRow $row, Base $base, string $at): void
    {
        match (true) {
            $row instanceof Source => $this->source($workspace, $row, $at),
            $row instanceof Drawing => $this->drawing($workspace, $row, $at),
            $row instanceof Wall => $this->wall($workspace, $row, $base, $at),
            $row instanceof Outline => $this->outline($workspace, $row, $at),
            $row instanceof Boundary => $this->boundary($workspace, $row, $at),
            default => $workspace->remove($row, $at),
        };
    }
}
