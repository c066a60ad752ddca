<?php

declare(strict_types=1);

namespace Plinth\Server\Objects;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Objects\ObjectKind;
use Plinth\Core\Plan\Model\PlacedObject as CoreObject;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Project\DrawnOnStorey;
use Plinth\Server\Project\OnStorey;
use Plinth\Server\Project\Storey;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A thing of true size that stands in a room, by its middle; mm. */
#[Kind('object')]
#[ORM\Entity]
#[ORM\Table(name: 'placed_object')]
#[ORM\Index(fields: ['project', 'storey'])]
class PlacedObject extends ProjectRow implements OnStorey, DrawnOnStorey
{
    private const LARGEST_MM = 20_000.0;

    #[Refers(Storey::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $storey;

    #[ORM\Column(length: 20)]
    private ObjectKind $kind = ObjectKind::Table;

    #[ORM\Column]
    private float $x = 0.0;

    #[ORM\Column]
    private float $y = 0.0;

    /** counter-clockwise; its front is towards −y without any */
    #[ORM\Column]
    private float $degrees = 0.0;

    #[ORM\Column]
    private float $width = 0.0;

    #[ORM\Column]
    private float $depth = 0.0;

    #[ORM\Column]
    private float $height = 0.0;

    /** above the storey's floor */
    #[ORM\Column]
    private float $base = 0.0;

    public static function onStorey(): string
    {
        return 'r.storey = :storey';
    }

    public function values(): array
    {
        return [
            'storey' => $this->storey->toRfc4122(), 'kind' => $this->kind->value, 'x' => $this->x, 'y' => $this->y,
            'degrees' => $this->degrees, 'width' => $this->width, 'depth' => $this->depth, 'height' => $this->height, 'base' => $this->base,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->storey = $values->id('storey');
        $this->kind = $values->choice('kind', ObjectKind::class);
        $this->x = $values->place('x');
        $this->y = $values->place('y');
        $this->degrees = fmod($values->number('degrees'), 360.0);
        $this->width = $values->positive('width', self::LARGEST_MM);
        $this->depth = $values->positive('depth', self::LARGEST_MM);
        $this->height = $values->positive('height', self::LARGEST_MM);
        $this->base = $values->optionalNumber('base') ?? 0.0;
    }

    public function stands(): CoreObject
    {
        return new CoreObject(
            $this->id->toRfc4122(),
            $this->kind->value,
            new Point($this->x, $this->y),
            $this->degrees,
            $this->width,
            $this->depth,
            $this->height,
            $this->base,
        );
    }
}
