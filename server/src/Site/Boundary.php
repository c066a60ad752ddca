<?php

declare(strict_types=1);

namespace Plinth\Server\Site;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Units\Bearing;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Project\DrawnOnStorey;
use Plinth\Server\Project\Storey;
use Plinth\Server\Source\Drawing;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A site's outline, followed leg by leg from where it begins; mm. */
#[Kind('boundary')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'storey'])]
class Boundary extends ProjectRow implements DrawnOnStorey
{
    #[Refers(Storey::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $storey;

    /** the drawing on which its beginning was picked; null once that is gone */
    #[Refers(Drawing::class, then: WhenGone::LetsGo)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $drawing = null;

    #[ORM\Column(length: 120)]
    private string $name = '';

    #[ORM\Column]
    private float $x = 0.0;

    #[ORM\Column]
    private float $y = 0.0;

    /** bearing of up on the board as typed, where its drawing is squared to a building instead of to north; empty for north */
    #[ORM\Column(length: 40)]
    private string $up = '';

    public function values(): array
    {
        return [
            'storey' => $this->storey->toRfc4122(),
            'drawing' => $this->drawing?->toRfc4122(),
            'name' => $this->name,
            'x' => $this->x,
            'y' => $this->y,
            'up' => $this->up,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->storey = $values->id('storey');
        $this->drawing = $values->optionalId('drawing');
        $this->name = $values->name('name');
        $this->x = $values->place('x');
        $this->y = $values->place('y');
        $this->up = $values->text('up', 40);
        $this->upDegrees();
    }

    /** @return float bearing of the model's y axis, degrees */
    public function upDegrees(): float
    {
        return '' === $this->up ? 0.0 : Bearing::parse($this->up)->degrees;
    }

    /** @return Point where it begins */
    public function from(): Point
    {
        return new Point($this->x, $this->y);
    }
}
