<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** The revision up to which a storey's shapes are derived. */
#[ORM\Entity]
#[ORM\Table(name: 'derived_storey')]
class Derived
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $project;

    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $storey;

    #[ORM\Column]
    public int $revision;
}
