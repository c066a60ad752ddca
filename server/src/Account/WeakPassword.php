<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

final class WeakPassword extends \InvalidArgumentException
{
    public static function because(string $words): self
    {
        return new self($words);
    }
}
