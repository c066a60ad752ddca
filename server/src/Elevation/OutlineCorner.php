<?php

declare(strict_types=1);

namespace Plinth\Server\Elevation;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Source\Drawing;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A corner of an outline; mm on its side, x along it and y above zero. */
#[Kind('outlineCorner')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'outline'])]
class OutlineCorner extends ProjectRow
{
    #[Refers(Outline::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $outline;

    /** the drawing it was traced over; null once that is gone */
    #[Refers(Drawing::class, then: WhenGone::LetsGo)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $drawing = null;

    /** corners follow each other by it, lowest first */
    #[ORM\Column(name: 'place_in_order')]
    private int $order = 0;

    #[ORM\Column]
    private float $x = 0.0;

    #[ORM\Column]
    private float $y = 0.0;

    /** mm of the arc to the next corner over its chord, positive to the left; 0 for a straight edge */
    #[ORM\Column]
    private float $rise = 0.0;

    public function values(): array
    {
        return [
            'outline' => $this->outline->toRfc4122(),
            'drawing' => $this->drawing?->toRfc4122(),
            'order' => $this->order,
            'x' => $this->x,
            'y' => $this->y,
            'rise' => $this->rise,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->outline = $values->id('outline');
        $this->drawing = $values->optionalId('drawing');
        $this->order = $values->count('order');
        $this->x = $values->place('x');
        $this->y = $values->place('y');
        $this->rise = $values->optionalNumber('rise') ?? 0.0;
    }

    public function rise(): float
    {
        return $this->rise;
    }

    public function at(): Point
    {
        return new Point($this->x, $this->y);
    }
}
