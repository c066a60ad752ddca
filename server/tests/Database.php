<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

/** The running instance's database, for what no answer over HTTP tells. */
final class Database
{
    public static function open(): \PDO
    {
        $url = parse_url((string) getenv('DATABASE_URL'));
        parse_str($url['query'] ?? '', $query);
        $socket = $query['unix_socket'] ?? '';
        if (!\is_string($socket) || !isset($url['user'], $url['pass'])) {
            throw new \RuntimeException('These tests need the running stack: bin/test starts it.');
        }

        return new \PDO(
            "mysql:unix_socket=$socket;dbname=plinth;charset=utf8mb4",
            $url['user'],
            $url['pass'],
            [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION],
        );
    }
}
