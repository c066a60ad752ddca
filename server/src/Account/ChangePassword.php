<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Attribute\Argument;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Style\SymfonyStyle;

#[AsCommand('plinth:account:password', 'Gives an account a new password and signs it out everywhere.')]
final readonly class ChangePassword
{
    public function __construct(private EntityManagerInterface $entities, private Accounts $accounts, private SignIns $signIns)
    {
    }

    public function __invoke(SymfonyStyle $io, #[Argument] string $email): int
    {
        $user = $this->accounts->by($email);
        if (null === $user) {
            $io->error(\sprintf('There is no account for “%s”.', $email));

            return 2;
        }
        try {
            $this->accounts->give($user, AskPassword::from($io));
        } catch (WeakPassword $e) {
            $io->error($e->getMessage());

            return 2;
        }
        $this->entities->flush();
        $this->signIns->endAll($user, false);
        $io->success(\sprintf('%s signs in with the new password from now on.', $user->getUserIdentifier()));

        return 0;
    }
}
