<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** One session of an account; without its row a session is over. */
#[ORM\Entity]
#[ORM\Index(fields: ['account', 'seenAt'])]
#[ORM\Index(fields: ['seenAt'])]
class SignedIn
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $id;

    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $account;

    /** seconds since the epoch */
    #[ORM\Column]
    public int $beganAt;

    #[ORM\Column]
    public int $seenAt;

    /** what the browser calls itself */
    #[ORM\Column(length: 200)]
    public string $program;
}
