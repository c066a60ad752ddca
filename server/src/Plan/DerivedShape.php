<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** One derived shape as JSON, with the revision at which it came to be as it is; one that is gone keeps its revision and loses its JSON. */
#[ORM\Entity]
#[ORM\Table(name: 'derived_shape')]
#[ORM\Index(fields: ['project', 'storey', 'revision'])]
#[ORM\Index(fields: ['project', 'storey', 'kind', 'area', 'columns'])]
class DerivedShape
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $project;

    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    public Uuid $storey;

    /** walls, regions or unplaced */
    #[ORM\Id]
    #[ORM\Column(length: 8)]
    public string $kind;

    /** id of the wall or room, key of the region */
    #[ORM\Id]
    #[ORM\Column(length: 36)]
    public string $name;

    #[ORM\Column]
    public int $revision;

    /** mm²: of a wall's body, or net of a region */
    #[ORM\Column]
    public float $area = 0.0;

    /** mm² that columns take off a region */
    #[ORM\Column]
    public float $columns = 0.0;

    #[ORM\Column(type: Types::TEXT, length: 16777215, nullable: true)]
    public ?string $shape;
}
