<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Attribute\Argument;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Style\SymfonyStyle;

#[AsCommand('plinth:account:create', 'Creates an account; the password is asked for, or read from standard input.')]
final readonly class CreateAccount
{
    public function __construct(private EntityManagerInterface $entities, private Accounts $accounts)
    {
    }

    public function __invoke(SymfonyStyle $io, #[Argument] string $email, #[Argument] string $name): int
    {
        $address = EmailAddress::of($email);
        if (null === $address) {
            $io->error(\sprintf('“%s” is no e-mail address.', $email));

            return 2;
        }
        if (null !== $this->accounts->by($email)) {
            $io->error(\sprintf('There is an account for %s already.', $address->text));

            return 2;
        }
        $user = new User($address->text, $name);
        try {
            $this->accounts->give($user, AskPassword::from($io));
        } catch (WeakPassword $e) {
            $io->error($e->getMessage());

            return 2;
        }
        $this->entities->persist($user);
        $this->entities->flush();
        $io->success(\sprintf('%s may sign in now.', $address->text));

        return 0;
    }
}
