<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\RowValues;

/** Two picks on a line that runs with the grid. */
#[ORM\Entity]
#[ORM\Index(fields: ['project'])]
#[ORM\Index(fields: ['drawing'])]
class GridPick extends ProjectRow
{
    use BetweenPicks;

    #[ORM\Column(length: 1)]
    private Axis $axis = Axis::X;

    public static function type(): RowType
    {
        return RowType::GridPick;
    }

    public function values(): array
    {
        return ['drawing' => $this->drawing->toRfc4122(), 'a' => $this->a->toRfc4122(), 'b' => $this->b->toRfc4122(), 'axis' => $this->axis->value];
    }

    public function take(RowValues $values): void
    {
        $this->takePicks($values);
        $this->axis = $values->choice('axis', Axis::class);
    }

    public function directionRad(): float
    {
        return Axis::X === $this->axis ? 0.0 : \M_PI_2;
    }
}
