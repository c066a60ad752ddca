<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\RowValues;

#[ORM\Entity]
#[ORM\Index(fields: ['project'])]
class Storey extends ProjectRow
{
    #[ORM\Column(length: 120)]
    private string $name = '';

    /** mm above the project's zero */
    #[ORM\Column]
    private float $elevation = 0.0;

    /** mm */
    #[ORM\Column]
    private float $height = 2700.0;

    public static function type(): RowType
    {
        return RowType::Storey;
    }

    public function values(): array
    {
        return ['name' => $this->name, 'elevation' => $this->elevation, 'height' => $this->height];
    }

    public function take(RowValues $values): void
    {
        $this->name = $values->name('name');
        $this->elevation = $values->number('elevation');
        $this->height = $values->positive('height');
    }

    public function name(): string
    {
        return $this->name;
    }

    public function elevation(): float
    {
        return $this->elevation;
    }

    public function height(): float
    {
        return $this->height;
    }
}
