<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A wrong password: for which account, where there is one, and from whom. */
#[ORM\Entity]
#[ORM\Index(fields: ['sender', 'failedAt'])]
#[ORM\Index(fields: ['account', 'failedAt'])]
class FailedSignIn
{
    #[ORM\Id]
    #[ORM\GeneratedValue]
    #[ORM\Column(type: 'bigint')]
    public int $id;

    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    public ?Uuid $account;

    /** SHA-256 of the sender's address or net */
    #[ORM\Column(type: 'binary', length: 32, options: ['fixed' => true])]
    public string $sender;

    /** seconds since the epoch */
    #[ORM\Column]
    public int $failedAt;
}
