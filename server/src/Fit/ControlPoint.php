<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Fitting\ControlPoint as CoreControlPoint;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Source\Drawing;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A pick whose place in the model is known: the origin, a crossing of the setting-out grid, a corner. */
#[Kind('controlPoint')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'drawing'])]
class ControlPoint extends ProjectRow implements Statement
{
    #[Refers(Drawing::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $drawing;

    #[Refers(Pick::class)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $pick;

    #[ORM\Column]
    private float $x = 0.0;

    #[ORM\Column]
    private float $y = 0.0;

    /** what it was called when it was placed: B/2, origin */
    #[ORM\Column(length: 60)]
    private string $text = '';

    public function values(): array
    {
        return [
            'drawing' => $this->drawing->toRfc4122(),
            'pick' => $this->pick->toRfc4122(),
            'x' => $this->x,
            'y' => $this->y,
            'text' => $this->text,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->drawing = $values->id('drawing');
        $this->pick = $values->id('pick');
        $this->x = $values->number('x');
        $this->y = $values->number('y');
        $this->text = $values->text('text', 60);
    }

    public function drawing(): Uuid
    {
        return $this->drawing;
    }

    public function toCore(): CoreControlPoint
    {
        return new CoreControlPoint($this->id->toRfc4122(), $this->pick->toRfc4122(), new Point($this->x, $this->y));
    }
}
