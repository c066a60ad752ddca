<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Doctrine\DBAL\Connection;
use Symfony\Component\HttpFoundation\Session\Storage\Handler\PdoSessionHandler;

/** Sessions live in the database, on the connection that the request has anyway. */
final readonly class Sessions
{
    public function __construct(private Connection $connection)
    {
    }

    public function handler(): PdoSessionHandler
    {
        $pdo = $this->connection->getNativeConnection();

        // Without a row lock parallel requests of one browser do not queue behind each other.
        return new QuietSessionHandler($pdo instanceof \PDO ? $pdo : null, ['lock_mode' => PdoSessionHandler::LOCK_NONE]);
    }
}
