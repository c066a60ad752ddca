<?php

declare(strict_types=1);

namespace Plinth\Core\Enclosure;

use Plinth\Core\Plan\Model\Opening;

/** An opening in what bounds an enclosure. */
final readonly class EnclosureDoor
{
    public function __construct(public string $enclosure, public Opening $opening)
    {
    }

    public function isRated(): bool
    {
        return '' !== $this->opening->rated;
    }
}
