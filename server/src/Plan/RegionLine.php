<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A wall or divider that bounds a region. */
#[ORM\Entity]
#[ORM\Table(name: 'region_line')]
#[ORM\Index(fields: ['project', 'storey', 'region'])]
class RegionLine
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $project;

    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $storey;

    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $line;

    #[ORM\Id]
    #[ORM\Column(length: 32)]
    public string $region;
}
