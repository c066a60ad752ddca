<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

/** What an attempt works on is not its own any more: it was stopped, or a newer one has begun. */
final class Superseded extends \RuntimeException
{
    public static function byANewerAttempt(): self
    {
        return new self('This was stopped, or a newer attempt has taken it over.');
    }
}
