<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Fitting\GridPick as CoreGridPick;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;

/** Two picks on a line that runs with the grid. */
#[Kind('gridPick')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'drawing'])]
class GridPick extends ProjectRow implements Statement
{
    use BetweenPicks;

    #[ORM\Column(length: 1)]
    private Axis $axis = Axis::X;

    /** degrees clockwise from north; null for a line that runs with the grid */
    #[ORM\Column(nullable: true)]
    private ?float $bearing = null;

    #[ORM\Column(length: 8)]
    private Hand $hand = Hand::Picked;

    public function values(): array
    {
        return [
            'drawing' => $this->drawing->toRfc4122(),
            'a' => $this->a->toRfc4122(),
            'b' => $this->b->toRfc4122(),
            'axis' => $this->axis->value,
            'bearing' => $this->bearing,
            'hand' => $this->hand->value,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->takePicks($values);
        $this->axis = $values->choice('axis', Axis::class);
        $this->bearing = $values->optionalNumber('bearing');
        $this->hand = $values->choiceOr('hand', Hand::Picked);
    }

    public function hand(): Hand
    {
        return $this->hand;
    }

    public function toCore(): CoreGridPick
    {
        $direction = null !== $this->bearing ? CoreGridPick::directionOfBearing($this->bearing) : (Axis::X === $this->axis ? 0.0 : \M_PI_2);

        return new CoreGridPick($this->id->toRfc4122(), $this->a->toRfc4122(), $this->b->toRfc4122(), $direction);
    }

    /** A line that runs with the grid runs with its other axis once the drawing has been turned by a quarter. */
    public function axisAfterQuarter(): Axis
    {
        return Axis::X === $this->axis ? Axis::Y : Axis::X;
    }
}
