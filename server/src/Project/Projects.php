<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\DBAL\Connection;
use Plinth\Server\Account\User;
use Plinth\Server\Change\Raw;
use Symfony\Component\Uid\Uuid;

/** Whole projects: whose they are, copying them, and taking them away for good. */
final readonly class Projects
{
    public const DAYS_IN_BIN = 30;
    private const NOT_COPIED = ['project_change', 'project_share', 'project_token', 'job', 'job_turn', 'arrival', 'rectified_picture', 'presence'];

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
        // Whoever had it before reads it no more.
        $this->connection->executeStatement('DELETE FROM project_token WHERE project = ?', [$project->toBinary()]);
    }

    /**
     * All of it, but for its history, who it is shared with and what is being worked on. Rows are called as before: they are told apart by
     * their project. Pictures are made again when they are asked for.
     */
    public function copy(Uuid $project, Uuid $copy, User $owner, string $name): void
    {
        $values = ['project' => '?', 'id' => '?', 'owner' => '?', 'name' => '?', 'binned' => 'NULL'];
        $given = [$copy->toBinary(), $copy->toBinary(), $owner->id()->toBinary(), $name];
        $this->copyRows('project', $values, $given, $project);
        foreach ($this->tables() as $table) {
            if ('project' !== $table && !\in_array($table, self::NOT_COPIED, true)) {
                $this->copyRows($table, ['project' => '?'], [$copy->toBinary()], $project);
            }
        }
    }

    /**
     * @param array<string, string> $values what stands for a column instead of itself
     * @param list<string> $given for their question marks
     */
    private function copyRows(string $table, array $values, array $given, Uuid $project): void
    {
        // In the order of what is given.
        $columns = array_map(Raw::text(...), $this->connection->fetchFirstColumn(
            'SELECT column_name FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = ?',
            [$table],
        ));
        $columns = [...array_keys($values), ...array_diff($columns, array_keys($values))];
        $this->connection->executeStatement(
            \sprintf(
                'INSERT INTO `%s` (%s) SELECT %s FROM `%1$s` WHERE project = ?',
                $table,
                implode(', ', array_map(static fn (string $c): string => "`$c`", $columns)),
                implode(', ', array_map(static fn (string $c): string => $values[$c] ?? "`$c`", $columns)),
            ),
            [...$given, $project->toBinary()],
        );
    }

    /** Those that have lain in the bin for a month go for good. */
    public function emptyBin(User $user): void
    {
        foreach ($this->connection->fetchFirstColumn(
            'SELECT id FROM project WHERE owner = ? AND binned < UTC_TIMESTAMP() - INTERVAL '.self::DAYS_IN_BIN.' DAY',
            [$user->id()->toBinary()],
        ) as $id) {
            $this->connection->transactional(fn () => $this->remove(Uuid::fromBinary(Raw::text($id))));
        }
    }

    /** All rows, the history and what was derived; pictures are tidied up afterwards, source files stay. */
    public function remove(Uuid $project): void
    {
        foreach ($this->tables() as $table) {
            $this->connection->executeStatement("DELETE FROM `$table` WHERE project = ?", [$project->toBinary()]);
        }
    }

    /** @return list<string> whatever belongs to a project names it by this column */
    private function tables(): array
    {
        return array_map(Raw::text(...), $this->connection->fetchFirstColumn(
            "SELECT table_name FROM information_schema.columns WHERE table_schema = DATABASE() AND column_name = 'project'",
        ));
    }
}
