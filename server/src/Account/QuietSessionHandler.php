<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Symfony\Component\HttpFoundation\Session\Storage\Handler\PdoSessionHandler;

/** A session in which nothing has changed is not written: SignIns notes once a minute that somebody is still there, and that is. */
final class QuietSessionHandler extends PdoSessionHandler
{
    public function updateTimestamp(#[\SensitiveParameter] string $sessionId, string $data): bool
    {
        return true;
    }
}
