<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** When a project was last served in a lane, so that projects take turns. */
#[ORM\Entity]
#[ORM\Table(name: 'job_turn')]
class JobTurn
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $project;

    #[ORM\Id]
    #[ORM\Column(length: 5)]
    public Lane $lane;

    /** microseconds since the epoch */
    #[ORM\Column(type: 'bigint')]
    public int $served;
}
