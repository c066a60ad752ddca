<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Project\DrawnOnStorey;
use Plinth\Server\Project\OnStorey;
use Plinth\Server\Project\Storey;
use Plinth\Server\Source\Drawing;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** Where centre lines of walls end or meet, mm. */
#[Kind('node')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'storey', 'x', 'y'])]
#[ORM\Index(fields: ['project', 'drawing'])]
class Node extends ProjectRow implements OnStorey, DrawnOnStorey
{
    #[Refers(Storey::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $storey;

    /** the drawing it was traced over */
    #[Refers(Drawing::class, then: WhenGone::LetsGo)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $drawing = null;

    #[ORM\Column]
    private float $x = 0.0;

    #[ORM\Column]
    private float $y = 0.0;

    public static function onStorey(): string
    {
        return 'r.storey = :storey';
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

    public function storey(): Uuid
    {
        return $this->storey;
    }

    public function at(): Point
    {
        return new Point($this->x, $this->y);
    }
}
