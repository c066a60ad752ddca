<?php

declare(strict_types=1);

namespace Plinth\Server\Elevation;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Project\Side;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A stretch of a side that stands in a row with others; the row is a side of its own, which has no line. */
#[Kind('streetPart', isMoved: false)]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'street'])]
#[ORM\Index(fields: ['project', 'side'])]
class StreetPart extends ProjectRow
{
    private const SHORTEST_MM = 10.0;

    #[Refers(Side::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $street;

    #[Refers(Side::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $side;

    /** parts follow each other by it from the left */
    #[ORM\Column(name: 'place_in_order')]
    private int $order = 0;

    /** mm along the side, from its left corner to the one that it shares with the next part */
    #[ORM\Column]
    private float $fromX = 0.0;

    #[ORM\Column]
    private float $toX = 0.0;

    /** mm by which the side's zero lies higher than the street's */
    #[ORM\Column]
    private float $rise = 0.0;

    public function values(): array
    {
        return [
            'street' => $this->street->toRfc4122(), 'side' => $this->side->toRfc4122(), 'order' => $this->order,
            'fromX' => $this->fromX, 'toX' => $this->toX, 'rise' => $this->rise,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->street = $values->id('street');
        $this->side = $values->id('side');
        if ($this->street->equals($this->side)) {
            throw Refusal::invalid('own-part', 'A row of sides cannot stand in itself: choose another side.', $values->at('side'));
        }
        $this->order = $values->count('order');
        $this->fromX = $values->place('fromX');
        $this->toX = $values->place('toX');
        if ($this->toX - $this->fromX < self::SHORTEST_MM) {
            throw Refusal::invalid(
                'no-stretch',
                'A part runs from its left corner to its right one, at least 10 mm: let it end further to the right.',
                $values->at('toX'),
            );
        }
        $this->rise = $values->place('rise');
    }

    public function side(): Uuid
    {
        return $this->side;
    }

    /** @return array{float, float, float} from, to, rise */
    public function stretch(): array
    {
        return [$this->fromX, $this->toX, $this->rise];
    }
}
