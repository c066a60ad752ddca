<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Network;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Room;

/**
 * Finds where a room runs out.
 *
 * Every free end is joined by a straight mend to every wall it could be meant to meet. The way out leads from face to
 * face through mends; always the widest that is reached is taken next, so the narrowest of those taken by the time the
 * outside is reached is the narrowest place of the widest way out: the leak.
 */
final class LeakSearch
{
    private readonly MendedPieces $pieces;
    private readonly Faces $faces;
    private readonly Enclosures $enclosures;

    public function __construct(PieceSource $pieces, Network $network)
    {
        $this->pieces = new MendedPieces($pieces, $network);
        $this->faces = new Faces(new Network($this->pieces));
        $this->enclosures = new Enclosures($this->pieces, $this->faces);
    }

    /**
     * @param Point|null $until a point inside the same walls, where another room's name stands; otherwise the outside
     *
     * @return Leak|null null when no gap up to 2.5 m, once mended, would enclose the room, or part the two
     */
    public function from(Room $room, ?Point $until = null): ?Leak
    {
        $face = $this->enclosures->at($room->anchor->x, $room->anchor->y);
        $goal = null === $until ? null : $this->enclosures->at($until->x, $until->y);
        /** @var \SplPriorityQueue<float, array{string, int}> $ways */
        $ways = new \SplPriorityQueue();
        $seen = [];
        $narrowest = null;
        while ($face !== $goal) {
            if (null !== $face && !isset($seen[spl_object_id($face)])) {
                $seen[spl_object_id($face)] = true;
                foreach ($face->halves as $h) {
                    $mend = $this->faces->network->edges[$h >> 1]['wall'];
                    if (isset($this->pieces->mends[$mend])) {
                        $ways->insert([$mend, $h ^ 1], $this->pieces->mends[$mend]['gap']);
                    }
                }
            }
            if (0 === $ways->count()) {
                return null;
            }
            /** @var array{string, int} $way */
            $way = $ways->extract();
            [$mend, $across] = $way;
            if (null === $narrowest || $this->pieces->mends[$mend]['gap'] < $this->pieces->mends[$narrowest]['gap']) {
                $narrowest = $mend;
            }
            $face = $this->faces->of($across);
            if (!$face->isBounded()) {
                $face = $this->enclosures->round($face);
            }
        }
        if (null === $narrowest) {
            return null;
        }
        $mend = $this->pieces->mends[$narrowest];

        return new Leak($room->id, $mend['gap'], $mend['neck'], $mend['walls'], $mend['end']);
    }
}
