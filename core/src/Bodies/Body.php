<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies;

/** Something that stands or lies: a closed surface, and of what. */
final readonly class Body
{
    /** @param string $id of what it was made from; a door has a frame and its leaves by the same one */
    public function __construct(public BodyKind $kind, public string $id, public string $storey, public Mesh $mesh)
    {
    }
}
