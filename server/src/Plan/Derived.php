<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** What was derived from a storey, as JSON, for the revision it belongs to. */
#[ORM\Entity]
#[ORM\Table(name: 'derived_storey')]
class Derived
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $storey;

    #[ORM\Column]
    public int $revision;

    #[ORM\Column(type: Types::TEXT, length: 4294967295)]
    public string $shapes;
}
