<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Symfony\Component\Security\Core\Exception\AuthenticationException;

final class TooManySignIns extends AuthenticationException
{
    public function getMessageKey(): string
    {
        return 'Too many tries with this address. Wait a quarter of an hour and try again.';
    }
}
