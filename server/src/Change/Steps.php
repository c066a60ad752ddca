<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Doctrine\DBAL\Connection;
use Plinth\Server\Account\User;
use Symfony\Component\Uid\Uuid;

/** What of a user's own changes would be taken back and done again next. */
final readonly class Steps
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return array{undo: array{id: string, title: string}|null, redo: array{id: string, title: string}|null} */
    public function of(Uuid $project, User $user): array
    {
        return ['undo' => $this->next($project, $user, ChangeState::Done, 'DESC'), 'redo' => $this->next($project, $user, ChangeState::Undone, 'ASC')];
    }

    /** @return array{id: string, title: string}|null */
    private function next(Uuid $project, User $user, ChangeState $state, string $order): ?array
    {
        $row = $this->connection->fetchNumeric("SELECT id, title FROM project_change WHERE project = ? AND account = ? AND state = ? ORDER BY revision $order LIMIT 1", [$project->toBinary(), $user->id()->toBinary(), $state->value]);

        return \is_array($row) && \is_string($row[0]) && \is_string($row[1]) ? ['id' => Uuid::fromBinary($row[0])->toRfc4122(), 'title' => $row[1]] : null;
    }
}
