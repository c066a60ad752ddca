<?php

declare(strict_types=1);

namespace Plinth\Server\Site;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Site\Leg;
use Plinth\Core\Units\Bearing;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Http\Refusal;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** One piece of a boundary, with length and bearing as they are written on the drawing. */
#[Kind('leg')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'boundary'])]
class BoundaryLeg extends ProjectRow
{
    #[Refers(Boundary::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $boundary;

    /** legs follow each other by it, lowest first */
    #[ORM\Column(name: 'place_in_order')]
    private int $order = 0;

    #[ORM\Column(length: 60)]
    private string $length = '';

    #[ORM\Column(length: 40)]
    private string $bearing = '';

    /** unit that a bare number in the length had when it was typed */
    #[ORM\Column(length: 4)]
    private LengthUnit $unit = LengthUnit::Metre;

    public function values(): array
    {
        return [
            'boundary' => $this->boundary->toRfc4122(),
            'order' => $this->order,
            'length' => $this->length,
            'bearing' => $this->bearing,
            'unit' => $this->unit->value,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->boundary = $values->id('boundary');
        $this->order = $values->count('order');
        $this->length = $values->text('length', 60);
        $this->bearing = $values->text('bearing', 40);
        $this->unit = $values->choice('unit', LengthUnit::class);
        if ($this->toCore()->mm <= 0.0) {
            throw Refusal::invalid(
                'length-not-positive',
                \sprintf('A leg must be longer than zero, and “%s” is not.', $this->length),
                $values->at('length'),
            );
        }
    }

    public function toCore(): Leg
    {
        return new Leg(Bearing::parse($this->bearing), LengthParser::parse($this->length, $this->unit)->mm);
    }
}
