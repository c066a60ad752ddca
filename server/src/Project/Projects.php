<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Account\User;
use Plinth\Server\Change\RowType;
use Symfony\Component\Uid\Uuid;

/** Whole projects: whose they are, and taking them away for good. */
final readonly class Projects
{
    public function __construct(private Connection $connection, private EntityManagerInterface $entities)
    {
    }

    /** @return list<Uuid> */
    public function ownedBy(User $user): array
    {
        return array_map(static fn (mixed $id): Uuid => Uuid::fromBinary(\is_string($id) ? $id : ''), $this->connection->fetchFirstColumn('SELECT id FROM project WHERE owner = ?', [$user->id()->toBinary()]));
    }

    public function give(Uuid $project, User $to): void
    {
        $this->connection->executeStatement('UPDATE project SET owner = ? WHERE id = ?', [$to->id()->toBinary(), $project->toBinary()]);
        $this->connection->executeStatement('DELETE FROM project_share WHERE project = ? AND shared_with = ?', [$project->toBinary(), $to->id()->toBinary()]);
    }

    /** All rows, the history and what was derived; pictures are tidied up afterwards, source files stay. */
    public function remove(Uuid $project): void
    {
        $key = [$project->toBinary()];
        foreach (['derived_shape', 'derived_storey', 'region_line'] as $table) {
            $this->connection->executeStatement("DELETE FROM $table WHERE storey IN (SELECT id FROM storey WHERE project = ?)", $key);
        }
        foreach (['finding' => 'drawing', 'rectified_picture' => 'id'] as $table => $column) {
            $this->connection->executeStatement("DELETE FROM $table WHERE $column IN (SELECT id FROM drawing WHERE project = ?)", $key);
        }
        foreach (array_reverse(RowType::cases()) as $type) {
            $table = $this->entities->getClassMetadata($type->class())->getTableName();
            $this->connection->executeStatement("DELETE FROM $table WHERE project = ?", $key);
        }
        $this->connection->executeStatement('DELETE FROM project_change WHERE project = ?', $key);
        $this->connection->executeStatement('DELETE FROM project_share WHERE project = ?', $key);
    }
}
