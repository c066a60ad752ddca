<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation;

use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Network\Leak;

/** A named room that nothing encloses, with its leak where one would close it. */
final readonly class Unplaced
{
    public function __construct(public Room $room, public ?Leak $leak, public Finding $finding)
    {
    }
}
