<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** From where an account has signed in before. */
#[ORM\Entity]
class KnownSender
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $account;

    /** SHA-256 of the sender's address or net */
    #[ORM\Id]
    #[ORM\Column(type: 'binary', length: 32, options: ['fixed' => true])]
    public string $sender;

    /** seconds since the epoch */
    #[ORM\Column]
    public int $seenAt;
}
