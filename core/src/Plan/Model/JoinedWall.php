<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/** A wall with the names of the nodes at its ends; walls that share a node are joined there. */
final readonly class JoinedWall
{
    public function __construct(public Wall $wall, public string $from, public string $to)
    {
    }
}
