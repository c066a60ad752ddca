<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies;

/** What has no body, and why. */
final readonly class Refused
{
    public function __construct(public string $id, public string $message)
    {
    }
}
