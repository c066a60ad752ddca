<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\RowValues;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** Where centre lines of walls end or meet, mm. */
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'storey', 'x', 'y'])]
#[ORM\Index(fields: ['project', 'drawing'])]
class Node extends ProjectRow
{
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $storey;

    /** the drawing it was traced over */
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $drawing = null;

    #[ORM\Column]
    private float $x = 0.0;

    #[ORM\Column]
    private float $y = 0.0;

    public static function type(): RowType
    {
        return RowType::Node;
    }

    public function values(): array
    {
        return ['storey' => $this->storey->toRfc4122(), 'drawing' => $this->drawing?->toRfc4122(), 'x' => $this->x, 'y' => $this->y];
    }

    public function take(RowValues $values): void
    {
        $this->storey = $values->id('storey');
        $this->drawing = $values->optionalId('drawing');
        $this->x = $values->place('x');
        $this->y = $values->place('y');
    }

    public function references(): array
    {
        $needs = [[RowType::Storey, $this->storey, 'storey']];
        if (null !== $this->drawing) {
            $needs[] = [RowType::Drawing, $this->drawing, 'drawing'];
        }

        return $needs;
    }

    public function storey(): Uuid
    {
        return $this->storey;
    }

    public function at(): Point
    {
        return new Point($this->x, $this->y);
    }
}
