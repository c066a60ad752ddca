<?php

declare(strict_types=1);

namespace Plinth\Server\Site;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\RowValues;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A site's outline, followed leg by leg from where it begins; mm, north is +y. */
#[ORM\Entity]
#[ORM\Index(fields: ['project'])]
#[ORM\Index(fields: ['storey'])]
class Boundary extends ProjectRow
{
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $storey;

    #[ORM\Column(length: 120)]
    private string $name = '';

    #[ORM\Column]
    private float $x = 0.0;

    #[ORM\Column]
    private float $y = 0.0;

    public static function type(): RowType
    {
        return RowType::Boundary;
    }

    public function values(): array
    {
        return ['storey' => $this->storey->toRfc4122(), 'name' => $this->name, 'x' => $this->x, 'y' => $this->y];
    }

    public function take(RowValues $values): void
    {
        $this->storey = $values->id('storey');
        $this->name = $values->name('name');
        $this->x = $values->number('x');
        $this->y = $values->number('y');
    }

    public function references(): array
    {
        return [[RowType::Storey, $this->storey, 'storey']];
    }

    public function x(): float
    {
        return $this->x;
    }

    public function y(): float
    {
        return $this->y;
    }
}
