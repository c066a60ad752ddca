<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

/** What an attempt works on is not its own any more: a newer one has begun. */
final class Superseded extends \RuntimeException
{
    public static function byANewerAttempt(): self
    {
        return new self('A newer attempt has taken this over.');
    }
}
