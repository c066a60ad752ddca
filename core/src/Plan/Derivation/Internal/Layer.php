<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation\Internal;

use Plinth\Core\Plan\Network\Effort;
use Plinth\Core\Plan\Network\Faces;
use Plinth\Core\Plan\Network\Neighbourhood;
use Plinth\Core\Plan\Network\Network;
use Plinth\Core\Plan\Network\Pieces;

/**
 * Walls and dividers that bound rooms, or those that do not, each with their own network: a railing cuts no room.
 *
 * @internal
 */
final readonly class Layer
{
    public Pieces $pieces;
    public Network $network;
    public Faces $faces;
    public Bodies $bodies;

    public function __construct(Neighbourhood $plan, bool $encloses, Effort $effort)
    {
        $this->pieces = new Pieces($plan, $encloses);
        $this->network = new Network($this->pieces, $effort);
        $this->faces = new Faces($this->network);
        $this->bodies = new Bodies($this->pieces, $this->faces, $effort);
    }
}
