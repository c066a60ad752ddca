<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\DBAL\Connection;
use Symfony\Component\Console\Attribute\Argument;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Style\SymfonyStyle;
use Symfony\Component\Uid\Uuid;

#[AsCommand('plinth:project:remove', 'Removes a project with its whole history, for good.')]
final readonly class RemoveProject
{
    public function __construct(private Connection $connection, private Projects $projects)
    {
    }

    public function __invoke(SymfonyStyle $io, #[Argument] string $id): int
    {
        $name = Uuid::isValid($id) ? $this->connection->fetchOne(
            'SELECT name FROM project WHERE id = ?',
            [Uuid::fromString($id)->toBinary()],
        ) : false;
        if (!\is_string($name)) {
            $io->error(\sprintf('There is no project “%s”. Its id stands in the address of its page.', $id));

            return 2;
        }
        $this->connection->transactional(fn () => $this->projects->remove(Uuid::fromString($id)));
        $io->success(\sprintf('“%s” is removed. plinth:files:tidy takes its pictures away.', $name));

        return 0;
    }
}
