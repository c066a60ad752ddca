<?php

declare(strict_types=1);

namespace Plinth\Server\SettingOut;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\SettingOut;
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

/** A column of a storey, by its centre; mm. */
#[Kind('column')]
#[ORM\Entity]
#[ORM\Table(name: 'building_column')]
#[ORM\Index(fields: ['project', 'storey'])]
class Column extends ProjectRow implements OnStorey, DrawnOnStorey
{
    #[Refers(Storey::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $storey;

    #[ORM\Column]
    private float $x = 0.0;

    #[ORM\Column]
    private float $y = 0.0;

    #[ORM\Column]
    private float $width = 300.0;

    #[ORM\Column]
    private float $depth = 300.0;

    #[ORM\Column]
    private bool $round = false;

    public static function onStorey(): string
    {
        return 'r.storey = :storey';
    }

    public function values(): array
    {
        return [
            'storey' => $this->storey->toRfc4122(),
            'x' => $this->x,
            'y' => $this->y,
            'width' => $this->width,
            'depth' => $this->depth,
            'round' => $this->round,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->storey = $values->id('storey');
        $this->x = $values->place('x');
        $this->y = $values->place('y');
        $this->width = $values->positive('width', 20_000.0);
        $this->depth = $values->positive('depth', 20_000.0);
        $this->round = $values->flag('round');
    }

    /** @return list<array{float, float}> */
    public function outline(): array
    {
        return SettingOut::column($this->x, $this->y, $this->width, $this->depth, $this->round);
    }

    public function centre(): Point
    {
        return new Point($this->x, $this->y);
    }
}
