<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\Assert;

/** Waits for what others do: as long as anything goes on, however slow the machine is. */
final class Waiting
{
    /** s in which nothing at all has happened; a worker that is alive says so every few */
    private const STILL = 120.0;

    /**
     * @template T
     *
     * @param callable(): (T|null) $look null while it is not there
     * @param string $what is waited for
     * @param (callable(): string)|null $state of where it happens, different whenever something has gone on; of this instance unless it is
     *                                         given
     *
     * @return T
     */
    public static function until(callable $look, string $what, ?callable $state = null): mixed
    {
        $goesOn = $state ?? self::state(...);
        [$state, $since] = [$goesOn(), microtime(true)];
        while (true) {
            $found = $look();
            if (null !== $found) {
                return $found;
            }
            usleep(100_000);
            $now = $goesOn();
            if ($now !== $state) {
                [$state, $since] = [$now, microtime(true)];
            }
            Assert::assertLessThan(self::STILL, microtime(true) - $since, "$what, and nothing has gone on for two minutes.");
        }
    }

    /** Jobs that wait and who holds them until when, and what the slow ones tell of themselves. */
    private static function state(): string
    {
        try {
            $row = Database::open()->query(
                'SELECT (SELECT CONCAT_WS(",", COUNT(*), SUM(attempt), SUM(held_until), SUM(part)) FROM job), (SELECT SUM(served) FROM job_turn)',
            );
        } catch (\PDOException) {
            return 'away';
        }

        return false === $row ? '' : (string) json_encode($row->fetch(\PDO::FETCH_NUM));
    }
}
