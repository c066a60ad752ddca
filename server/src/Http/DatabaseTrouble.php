<?php

declare(strict_types=1);

namespace Plinth\Server\Http;

use Doctrine\DBAL\Exception\ConnectionException;

/** What has happened to the database, by what it says: in driver errors and bare PDO errors, here and in the session store. */
final class DatabaseTrouble
{
    // 2002 cannot connect, 2006 gone away, 2013 lost during query, 1053 shutting down: client errors of the MySQL protocol.
    private const AWAY = '/\b(2002|2006|2013|1053)\b/';
    // 1021 disk full, 1026 and 3 error writing file, 1114 table is full, 28 no space left on device.
    private const FULL = '/: (1021|1026|1114|3) |\b(errno|Errcode): 28\b/';

    /** It does not answer, for now. */
    public static function isAway(\Throwable $e): bool
    {
        return $e instanceof ConnectionException || self::says($e, self::AWAY);
    }

    /** Its disk is full. */
    public static function isFull(\Throwable $e): bool
    {
        return self::says($e, self::FULL);
    }

    private static function says(\Throwable $e, string $pattern): bool
    {
        for ($cause = $e; null !== $cause; $cause = $cause->getPrevious()) {
            if ($cause instanceof \PDOException && 1 === preg_match($pattern, $cause->getCode().' '.$cause->getMessage())) {
                return true;
            }
        }

        return false;
    }
}
