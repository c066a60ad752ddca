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
        $next = ['undo' => null, 'redo' => null];
        $one = static fn (string $name, ChangeState $state, string $order): string => "(SELECT '$name', id, title FROM project_change WHERE project = ? AND account = ? AND state = '$state->value' ORDER BY revision $order LIMIT 1)";
        $whose = [$project->toBinary(), $user->id()->toBinary()];
        $rows = $this->connection->fetchAllNumeric(
            $one('undo', ChangeState::Done, 'DESC').' UNION ALL '.$one('redo', ChangeState::Undone, 'ASC'),
            [...$whose, ...$whose],
        );
        foreach ($rows as [$name, $id, $title]) {
            $next['undo' === $name ? 'undo' : 'redo'] = ['id' => Raw::id($id), 'title' => Raw::text($title)];
        }

        return $next;
    }
}
