<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/** What of a room or of a wall has a finish. */
enum SurfaceOn: string
{
    case Floor = 'floor';
    case Ceiling = 'ceiling';
    /** all walls of a room, on the room's side */
    case Walls = 'walls';
    /** one face of a wall, as seen from its start */
    case Left = 'left';
    case Right = 'right';

    public function isOfRoom(): bool
    {
        return self::Left !== $this && self::Right !== $this;
    }
}
