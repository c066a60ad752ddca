<?php

declare(strict_types=1);

namespace Plinth\Server\Files;

/** A file could not be put where it belongs: the disk is full, or the store does not answer. */
final class CannotStore extends \RuntimeException
{
    public static function file(string $key): self
    {
        return new self("“{$key}” could not be stored.");
    }
}
