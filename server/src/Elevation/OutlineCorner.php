<?php

declare(strict_types=1);

namespace Plinth\Server\Elevation;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Wall as CoreWall;
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
    private const STEEPEST = 85;

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

    /** degrees that a roof rises over the edge to the next corner; null for a gable */
    #[ORM\Column(nullable: true)]
    private ?float $pitch = null;

    /** mm that a roof reaches beyond that edge */
    #[ORM\Column(options: ['default' => 0])]
    private float $overhang = 0.0;

    public function values(): array
    {
        return [
            'outline' => $this->outline->toRfc4122(),
            'drawing' => $this->drawing?->toRfc4122(),
            'order' => $this->order,
            'x' => $this->x,
            'y' => $this->y,
            'rise' => $this->rise,
            'pitch' => $this->pitch,
            'overhang' => $this->overhang,
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
        $this->pitch = $values->optionalNumber('pitch');
        if (null !== $this->pitch && ($this->pitch < 0.0 || $this->pitch > self::STEEPEST)) {
            throw UnreadableDocument::outOfRange($values->at('pitch'), \sprintf('from 0° to %d°, or none for a gable', self::STEEPEST));
        }
        $this->overhang = $values->optionalNumber('overhang') ?? 0.0;
        if ($this->overhang < 0.0 || $this->overhang > CoreWall::THICKEST_MM) {
            throw UnreadableDocument::outOfRange($values->at('overhang'), \sprintf('from zero to %d mm', CoreWall::THICKEST_MM));
        }
    }

    public function outline(): Uuid
    {
        return $this->outline;
    }

    public function pitch(): ?float
    {
        return $this->pitch;
    }

    public function overhang(): float
    {
        return $this->overhang;
    }

    public function rise(): float
    {
        return $this->rise;
    }

    /** The drawing it was traced over. */
    public function drawing(): ?Uuid
    {
        return $this->drawing;
    }

    public function at(): Point
    {
        return new Point($this->x, $this->y);
    }
}
