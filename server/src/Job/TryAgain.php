<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

/** Something that had nothing to do with the work itself ended it. */
final class TryAgain extends \RuntimeException
{
    public static function after(string $words): self
    {
        return new self($words);
    }
}
