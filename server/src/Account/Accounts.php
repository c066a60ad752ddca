<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;

/** Finds accounts by their address, and judges passwords. */
final readonly class Accounts
{
    public function __construct(private EntityManagerInterface $entities, private UserPasswordHasherInterface $hasher)
    {
    }

    public function by(string $email): ?User
    {
        $address = EmailAddress::of($email);

        return null === $address ? null : $this->entities->getRepository(User::class)->findOneBy(['email' => $address->text]);
    }

    /** Takes as long whether or not there is such an account: a password is hashed either way. */
    public function isTheirs(?User $user, #[\SensitiveParameter] string $password): bool
    {
        if (null === $user || '' === $user->getPassword()) {
            $this->hasher->hashPassword(User::nobody(), $password);

            return false;
        }

        return $this->hasher->isPasswordValid($user, $password);
    }

    /** @throws WeakPassword */
    public function give(User $user, #[\SensitiveParameter] string $password): void
    {
        PasswordRule::check($password, $user->getUserIdentifier(), $user->name());
        $user->setPasswordHash($this->hasher->hashPassword($user, $password));
    }
}
