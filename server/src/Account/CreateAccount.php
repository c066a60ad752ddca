<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Attribute\Argument;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Style\SymfonyStyle;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;

#[AsCommand('plinth:account:create', 'Creates an account; the password is asked for, or read from standard input.')]
final readonly class CreateAccount
{
    public function __construct(private EntityManagerInterface $entities, private UserPasswordHasherInterface $hasher)
    {
    }

    public function __invoke(SymfonyStyle $io, #[Argument] string $email, #[Argument] string $name): int
    {
        $email = mb_strtolower(trim($email));
        if (false === filter_var($email, \FILTER_VALIDATE_EMAIL)) {
            $io->error(\sprintf('“%s” is no e-mail address.', $email));

            return 2;
        }
        if (null !== $this->entities->getRepository(User::class)->findOneBy(['email' => $email])) {
            $io->error(\sprintf('There is an account for %s already.', $email));

            return 2;
        }
        $password = stream_isatty(\STDIN) ? $io->askHidden('Password') : trim((string) fgets(\STDIN));
        if (!\is_string($password) || mb_strlen($password) < 12) {
            $io->error('A password needs at least 12 characters.');

            return 2;
        }
        $user = new User($email, $name);
        $user->setPasswordHash($this->hasher->hashPassword($user, $password));
        $this->entities->persist($user);
        $this->entities->flush();
        $io->success(\sprintf('%s may sign in now.', $email));

        return 0;
    }
}
