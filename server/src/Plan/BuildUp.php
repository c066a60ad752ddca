<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Plan\Model\Wall as CoreWall;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;

/** A named thickness and height that walls share. */
#[Kind('buildUp')]
#[ORM\Entity]
class BuildUp extends ProjectRow
{
    #[ORM\Column(length: 120)]
    private string $name = '';

    /** mm */
    #[ORM\Column]
    private float $thickness = 100.0;

    /** mm; null takes the storey's */
    #[ORM\Column(nullable: true)]
    private ?float $height = null;

    /** bounds rooms */
    #[ORM\Column]
    private bool $enclosing = true;

    public function values(): array
    {
        return [
            'name' => $this->name, 'thickness' => $this->thickness, 'height' => $this->height, 'enclosing' => $this->enclosing,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->name = $values->name('name', 120);
        $this->thickness = $values->positive('thickness', CoreWall::THICKEST_MM);
        $this->height = $values->optionalPositive('height');
        $this->enclosing = $values->flagOr('enclosing', true);
    }
}
