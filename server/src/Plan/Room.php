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

/** A name for the region that holds its anchor. */
#[Kind('room')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'storey'])]
class Room extends ProjectRow implements OnStorey, DrawnOnStorey
{
    #[Refers(Storey::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $storey;

    #[Refers(Drawing::class, then: WhenGone::LetsGo)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $drawing = null;

    #[ORM\Column(length: 120)]
    private string $name = '';

    #[ORM\Column(length: 12)]
    private string $number = '';

    /** of its ceiling, mm; null takes the storey's */
    #[ORM\Column(nullable: true)]
    private ?float $height = null;

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
        return [
            'storey' => $this->storey->toRfc4122(),
            'drawing' => $this->drawing?->toRfc4122(),
            'name' => $this->name,
            'number' => $this->number,
            'x' => $this->x,
            'y' => $this->y,
            'height' => $this->height,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->storey = $values->id('storey');
        $this->drawing = $values->optionalId('drawing');
        $this->name = $values->name('name');
        $this->number = $values->text('number', 12);
        $this->x = $values->place('x');
        $this->y = $values->place('y');
        $this->height = $values->optionalPositive('height');
    }

    public function storey(): Uuid
    {
        return $this->storey;
    }

    public function anchor(): Point
    {
        return new Point($this->x, $this->y);
    }
}
