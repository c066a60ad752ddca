<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Security\Core\User\PasswordAuthenticatedUserInterface;
use Symfony\Component\Security\Core\User\UserInterface;
use Symfony\Component\Uid\Uuid;
use Symfony\Component\Uid\UuidV7;

#[ORM\Entity]
#[ORM\Table(name: 'account')]
class User implements UserInterface, PasswordAuthenticatedUserInterface
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    #[ORM\Column]
    private string $passwordHash = '';

    /** @param string $email in its one form (EmailAddress) */
    public function __construct(
        #[ORM\Column(length: 180, unique: true, options: ['collation' => 'utf8mb4_bin'])]
        private string $email,
        #[ORM\Column(length: 80)]
        private string $name,
    ) {
        $this->id = new UuidV7();
    }

    /** Stands in where there is no account, so that hashing takes its time all the same. */
    public static function nobody(): self
    {
        return new self('nobody@plinth.invalid', '');
    }

    public function id(): Uuid
    {
        return $this->id;
    }

    public function name(): string
    {
        return $this->name;
    }

    public function setPasswordHash(string $hash): void
    {
        $this->passwordHash = $hash;
    }

    public function getPassword(): string
    {
        return $this->passwordHash;
    }

    public function getUserIdentifier(): string
    {
        return '' === $this->email ? throw new \LogicException('An account has an address.') : $this->email;
    }

    public function getRoles(): array
    {
        return ['ROLE_USER'];
    }

    #[\Deprecated]
    public function eraseCredentials(): void
    {
    }
}
