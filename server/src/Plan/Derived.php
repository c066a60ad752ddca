<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** The revision up to which a storey's shapes are derived, and what they add up to. */
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

    /** mm²: of the walls' bodies, net of the regions, and what columns take off these */
    #[ORM\Column(options: ['default' => 0])]
    public float $walls = 0.0;

    #[ORM\Column(options: ['default' => 0])]
    public float $regions = 0.0;

    #[ORM\Column(options: ['default' => 0])]
    public float $columns = 0.0;
}
