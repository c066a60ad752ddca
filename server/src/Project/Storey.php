<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Refusal;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

#[Kind('storey')]
#[ORM\Entity]
class Storey extends ProjectRow
{
    #[ORM\Column(length: 120)]
    private string $name = '';

    /** mm above the project's zero */
    #[ORM\Column]
    private float $elevation = 0.0;

    /** mm */
    #[ORM\Column]
    private float $height = 2700.0;

    /** the storey that this is an alternative of: its drawings lie beneath this one too */
    #[Refers(self::class)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $alternativeOf = null;

    /** which way a wing of it runs that is not square to the rest, degrees from x, counter-clockwise */
    #[ORM\Column(nullable: true)]
    private ?float $wing = null;

    public function values(): array
    {
        return [
            'name' => $this->name,
            'elevation' => $this->elevation,
            'height' => $this->height,
            'alternativeOf' => $this->alternativeOf?->toRfc4122(),
            'wing' => $this->wing,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->name = $values->name('name');
        $this->elevation = $values->number('elevation');
        $this->height = $values->positive('height');
        $this->alternativeOf = $values->optionalId('alternativeOf');
        $this->wing = $values->optionalNumber('wing');
        if (null !== $this->wing && abs($this->wing) > 45.0) {
            throw Refusal::invalid('wing-beyond-half-a-corner', 'A wing runs at most 45° from the grid, either way.', $values->at('wing'));
        }
        if (null !== $this->alternativeOf && $this->alternativeOf->equals($this->id)) {
            throw Refusal::invalid('own-alternative', 'A storey cannot be an alternative of itself.', $values->at('alternativeOf'));
        }
    }

    public function name(): string
    {
        return $this->name;
    }

    public function elevation(): float
    {
        return $this->elevation;
    }

    public function height(): float
    {
        return $this->height;
    }
}
