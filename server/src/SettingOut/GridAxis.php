<?php

declare(strict_types=1);

namespace Plinth\Server\SettingOut;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Fit\Axis;

/** One axis of the project's setting-out grid, which all storeys share. */
#[Kind('gridAxis')]
#[ORM\Entity]
class GridAxis extends ProjectRow
{
    /** in which direction the axes follow each other: one spaced along x runs up the drawing */
    #[ORM\Column(length: 1)]
    private Axis $along = Axis::X;

    /** mm */
    #[ORM\Column(name: 'at_mm')]
    private float $at = 0.0;

    #[ORM\Column(length: 12)]
    private string $label = '';

    public function values(): array
    {
        return ['along' => $this->along->value, 'at' => $this->at, 'label' => $this->label];
    }

    /** @return array{label: string, along: 'x'|'y', at: float} */
    public function toCore(): array
    {
        return ['label' => $this->label, 'along' => $this->along->value, 'at' => $this->at];
    }

    public function take(RowValues $values): void
    {
        $this->along = $values->choice('along', Axis::class);
        $this->at = $values->number('at');
        $this->label = $values->name('label', 12);
    }
}
