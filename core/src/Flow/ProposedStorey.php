<?php

declare(strict_types=1);

namespace Plinth\Core\Flow;

use Plinth\Core\Ink\Reading\ReadRoom;
use Plinth\Core\Ink\Walls\ProposedColumn;
use Plinth\Core\Ink\Walls\ProposedOpening;
use Plinth\Core\Ink\Walls\ProposedWall;
use Plinth\Core\Plan\Editing\Joining;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;

/** What was found in a drawing as a storey of its own: walls joined at their ends, with what stands in them. */
final class ProposedStorey
{
    private const STOREY_MM = 2700.0;

    /**
     * @param list<ProposedWall> $proposed
     * @param list<ProposedOpening> $openings
     * @param list<ProposedColumn> $columns
     * @param list<ReadRoom> $names
     */
    public static function of(array $proposed, array $openings, array $columns = [], array $names = []): Storey
    {
        $wanted = array_map(static fn (ProposedWall $w, int $i): Wall => $w->wall('w'.$i), $proposed, array_keys($proposed));
        $joined = Joining::of($wanted, [], []);
        $walls = $inWalls = $standing = $rooms = [];
        foreach ($joined['walls'] as $i => [$from, $to]) {
            $walls[$i] = $wanted[$i]->between($joined['nodes'][$from], $joined['nodes'][$to]);
        }
        foreach ($openings as $i => $o) {
            $wall = $walls[$o->wall] ?? null;
            $offset = null === $wall ? null : Joining::offsetOn($wall, $wanted[$o->wall], $o->offset, $o->width);
            if (null !== $wall && null !== $offset) {
                $inWalls[] = new Opening('o'.$i, $wall->id, $o->kind, $offset, $o->width);
            }
        }
        foreach ($columns as $i => $c) {
            $standing[] = new Column('c'.$i, $c->centre, $c->width, $c->depth);
        }
        foreach ($names as $i => $r) {
            $rooms[] = new Room('r'.$i, $r->name, (string) ($i + 1), $r->at);
        }

        return new Storey('drawing', '', 0.0, self::STOREY_MM, array_values($walls), $inWalls, $rooms, [], $standing);
    }
}
