<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\DBAL\Connection;
use Plinth\Server\Account\User;
use Plinth\Server\Change\Raw;
use Symfony\Component\Uid\Uuid;

/** Whole projects: whose they are, and taking them away for good. */
final readonly class Projects
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return list<Uuid> */
    public function ownedBy(User $user): array
    {
        return array_map(
            static fn (mixed $id): Uuid => Uuid::fromBinary(\is_string($id) ? $id : ''),
            $this->connection->fetchFirstColumn('SELECT id FROM project WHERE owner = ?', [$user->id()->toBinary()]),
        );
    }

    public function give(Uuid $project, User $to): void
    {
        $this->connection->executeStatement('UPDATE project SET owner = ? WHERE id = ?', [$to->id()->toBinary(), $project->toBinary()]);
        $this->connection->executeStatement(
            'DELETE FROM project_share WHERE project = ? AND shared_with = ?',
            [$project->toBinary(), $to->id()->toBinary()],
        );
    }

    /** All rows, the history and what was derived; pictures are tidied up afterwards, source files stay. */
    public function remove(Uuid $project): void
    {
        // Whatever belongs to a project names it by this column.
        foreach ($this->connection->fetchFirstColumn(
            "SELECT table_name FROM information_schema.columns WHERE table_schema = DATABASE() AND column_name = 'project'",
        ) as $table) {
            $this->connection->executeStatement('DELETE FROM '.Raw::text($table).' WHERE project = ?', [$project->toBinary()]);
        }
    }
}
