<?php

declare(strict_types=1);

namespace Plinth\Server\Elevation;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\RowValues;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** What is traced round on a side over its drawing: the face of the building, an opening in it, its roof. Its corners are rows. */
#[ORM\Entity]
#[ORM\Index(fields: ['project'])]
#[ORM\Index(fields: ['side'])]
class Outline extends ProjectRow
{
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $side;

    #[ORM\Column(length: 120)]
    private string $name = '';

    public static function type(): RowType
    {
        return RowType::Outline;
    }

    public function values(): array
    {
        return ['side' => $this->side->toRfc4122(), 'name' => $this->name];
    }

    public function take(RowValues $values): void
    {
        $this->side = $values->id('side');
        $this->name = $values->name('name');
    }

    public function references(): array
    {
        return [[RowType::Side, $this->side, 'side']];
    }
}
