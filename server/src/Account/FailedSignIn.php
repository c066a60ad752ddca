<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Doctrine\ORM\Mapping as ORM;

/** The table behind SignInThrottle. */
#[ORM\Entity]
#[ORM\Index(fields: ['sender', 'failedAt'])]
class FailedSignIn
{
    #[ORM\Id]
    #[ORM\GeneratedValue]
    #[ORM\Column]
    public int $id;

    #[ORM\Column(length: 64)]
    public string $sender;

    /** seconds since the epoch */
    #[ORM\Column]
    public int $failedAt;
}
