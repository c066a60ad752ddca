<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use Psr\Log\AbstractLogger;

/** A log that is listened to. */
final class Heard extends AbstractLogger
{
    /** @var list<string> */
    public array $said = [];

    public function log($level, string|\Stringable $message, array $context = []): void
    {
        $this->said[] = (string) $message;
    }
}
