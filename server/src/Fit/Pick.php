<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Source\Drawing;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A picked point in page pixels. */
#[Kind('pick', isMoved: false)]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'drawing'])]
class Pick extends ProjectRow implements Statement
{
    #[Refers(Drawing::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $drawing;

    #[ORM\Column]
    private float $x = 0.0;

    #[ORM\Column]
    private float $y = 0.0;

    #[ORM\Column]
    private float $sigmaPx = 0.5;

    public function values(): array
    {
        return ['drawing' => $this->drawing->toRfc4122(), 'x' => $this->x, 'y' => $this->y, 'sigmaPx' => $this->sigmaPx];
    }

    public function take(RowValues $values): void
    {
        $this->drawing = $values->id('drawing');
        $this->x = $values->number('x');
        $this->y = $values->number('y');
        $this->sigmaPx = $values->positive('sigmaPx', 1000.0);
    }

    public function drawing(): Uuid
    {
        return $this->drawing;
    }

    public function x(): float
    {
        return $this->x;
    }

    public function y(): float
    {
        return $this->y;
    }

    public function sigmaPx(): float
    {
        return $this->sigmaPx;
    }
}
