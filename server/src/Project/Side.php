<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\RowValues;

/** The vertical plane that elevations and sections of one face of the building stand on. */
#[ORM\Entity]
#[ORM\Index(fields: ['project'])]
class Side extends ProjectRow
{
    #[ORM\Column(length: 120)]
    private string $name = '';

    public static function type(): RowType
    {
        return RowType::Side;
    }

    public function values(): array
    {
        return ['name' => $this->name];
    }

    public function take(RowValues $values): void
    {
        $this->name = $values->name('name');
    }
}
