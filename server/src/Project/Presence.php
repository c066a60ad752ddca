<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** One open page of a project, while it says that it is there. */
#[ORM\Entity]
class Presence
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $project;

    /** of the page's own choosing */
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $page;

    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $account;

    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $signedIn;

    /** the storey or side that is being looked at */
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    public ?Uuid $place;

    /** seconds since the epoch */
    #[ORM\Column]
    public int $seenAt;
}
