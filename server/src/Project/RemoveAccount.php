<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\DBAL\Connection;
use Plinth\Server\Account\Accounts;
use Symfony\Component\Console\Attribute\Argument;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Attribute\Option;
use Symfony\Component\Console\Style\SymfonyStyle;

#[AsCommand('plinth:account:remove', 'Removes an account for good; its projects go to another account, or with it.')]
final readonly class RemoveAccount
{
    public function __construct(private Connection $connection, private Accounts $accounts, private Projects $projects)
    {
    }

    public function __invoke(
        SymfonyStyle $io,
        #[Argument] string $email,
        #[Option] ?string $projectsTo = null,
        #[Option] bool $withProjects = false,
    ): int {
        $user = $this->accounts->by($email);
        $heir = null === $projectsTo ? null : $this->accounts->by($projectsTo);
        if (null === $user || (null !== $projectsTo && null === $heir)) {
            $io->error(\sprintf('There is no account for “%s”.', null === $user ? $email : $projectsTo));

            return 2;
        }
        $owned = $this->projects->ownedBy($user);
        if ([] !== $owned && null === $heir && !$withProjects) {
            $io->error(
                \sprintf(
                    '%d projects belong to %s: say --projects-to=ADDRESS, or --with-projects to remove them too.',
                    \count($owned),
                    $user->getUserIdentifier(),
                ),
            );

            return 2;
        }
        $this->connection->transactional(function () use ($user, $heir, $owned): void {
            foreach ($owned as $project) {
                null === $heir ? $this->projects->remove($project) : $this->projects->give($project, $heir);
            }
            foreach ([
                'project_share' => 'shared_with',
                'known_sender' => 'account',
                'failed_sign_in' => 'account',
                'signed_in' => 'account',
            ] as $table => $column) {
                $this->connection->executeStatement("DELETE FROM $table WHERE $column = ?", [$user->id()->toBinary()]);
            }
            $this->connection->executeStatement('DELETE FROM account WHERE id = ?', [$user->id()->toBinary()]);
        });
        $io->success(
            \sprintf(
                '%s is removed; %d projects %s.',
                $user->getUserIdentifier(),
                \count($owned),
                null === $heir ? 'went with it' : 'belong to '.$heir->getUserIdentifier().' now',
            ),
        );

        return 0;
    }
}
