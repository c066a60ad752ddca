<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Plan\Model\ListedRoom as CoreListedRoom;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Project\OnStorey;
use Plinth\Server\Project\Storey;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A row of the drawing's own rooms table, as it stands there. */
#[Kind('listedRoom')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'storey'])]
class ListedRoom extends ProjectRow implements OnStorey
{
    #[Refers(Storey::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $storey;

    #[ORM\Column(length: 12)]
    private string $number = '';

    #[ORM\Column(length: 120)]
    private string $name = '';

    /** mm */
    #[ORM\Column(nullable: true)]
    private ?float $width = null;

    /** mm */
    #[ORM\Column(nullable: true)]
    private ?float $depth = null;

    #[ORM\Column(nullable: true)]
    private ?float $areaM2 = null;

    public static function onStorey(): string
    {
        return 'r.storey = :storey';
    }

    public function values(): array
    {
        return [
            'storey' => $this->storey->toRfc4122(), 'number' => $this->number, 'name' => $this->name, 'width' => $this->width, 'depth' => $this->depth, 'areaM2' => $this->areaM2,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->storey = $values->id('storey');
        $this->number = $values->text('number', 12);
        $this->name = $values->name('name', 120);
        $this->width = $values->optionalPositive('width');
        $this->depth = $values->optionalPositive('depth');
        $this->areaM2 = $values->optionalPositive('areaM2');
    }

    public function toCore(): CoreListedRoom
    {
        return new CoreListedRoom($this->number, $this->name, $this->width, $this->depth, $this->areaM2);
    }
}
