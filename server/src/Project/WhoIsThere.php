<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\DBAL\Connection;
use Plinth\Server\Account\SignIns;
use Plinth\Server\Account\User;
use Plinth\Server\Change\Raw;
use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Uuid;

/** Who has a project open, and where in it they are; as they last said, not long ago. */
final readonly class WhoIsThere implements Teller
{
    /** s after which somebody who says nothing has gone; pages say it three times meanwhile */
    public const GONE = 36;

    public function __construct(private Connection $connection, private SignIns $signIns, private ClockInterface $clock)
    {
    }

    public static function name(): string
    {
        return 'present';
    }

    public function note(Uuid $project, Uuid $page, User $user, ?Uuid $place): void
    {
        $now = $this->clock->now()->getTimestamp();
        $this->connection->executeStatement('DELETE FROM presence WHERE project = ? AND seen_at < ?', [
            $project->toBinary(), $now - self::GONE,
        ]);
        $this->connection->executeStatement(
            'INSERT INTO presence (project, page, account, signed_in, place, seen_at) VALUES (?, ?, ?, ?, ?, ?)
             ON DUPLICATE KEY UPDATE account = VALUES(account), signed_in = VALUES(signed_in), place = VALUES(place), seen_at = VALUES(seen_at)',
            [
                $project->toBinary(), $page->toBinary(), $user->id()->toBinary(), ($this->signIns->here() ?? $user->id())->toBinary(),
                $place?->toBinary(), $now,
            ],
        );
    }

    public function leave(Uuid $project, Uuid $page): void
    {
        $this->connection->executeStatement('DELETE FROM presence WHERE project = ? AND page = ?', [$project->toBinary(), $page->toBinary()]);
    }

    public function tell(Telling $about): string
    {
        $present = [];
        foreach ($this->connection->iterateNumeric(
            'SELECT p.page, a.name, p.place FROM presence p JOIN account a ON a.id = p.account WHERE p.project = ? AND p.seen_at >= ? ORDER BY p.page',
            [$about->project->id()->toBinary(), $this->clock->now()->getTimestamp() - self::GONE],
        ) as [$page, $name, $place]) {
            $present[] = ['page' => Raw::id($page), 'name' => Raw::text($name), 'place' => null === $place ? null : Raw::id($place)];
        }

        return json_encode($present, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE);
    }
}
