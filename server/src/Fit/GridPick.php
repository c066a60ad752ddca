<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Refusal;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** Two picks on a line that runs with the grid. */
#[ORM\Entity]
#[ORM\Index(fields: ['project'])]
#[ORM\Index(fields: ['drawing'])]
class GridPick extends ProjectRow
{
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $drawing;

    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $a;

    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $b;

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
        $this->drawing = $values->id('drawing');
        $this->a = $values->id('a');
        $this->b = $values->id('b');
        if ($this->a->equals($this->b)) {
            throw Refusal::invalid('coincident-picks', 'Both ends are the same pick: pick two ends.', $values->at('b'));
        }
        $this->axis = $values->choice('axis', Axis::class);
    }

    public function references(): array
    {
        return [[RowType::Drawing, $this->drawing, 'drawing'], [RowType::Pick, $this->a, 'a'], [RowType::Pick, $this->b, 'b']];
    }

    public function drawing(): Uuid
    {
        return $this->drawing;
    }

    public function a(): Uuid
    {
        return $this->a;
    }

    public function b(): Uuid
    {
        return $this->b;
    }

    public function directionRad(): float
    {
        return Axis::X === $this->axis ? 0.0 : \M_PI_2;
    }
}
