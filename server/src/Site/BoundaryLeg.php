<?php

declare(strict_types=1);

namespace Plinth\Server\Site;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Site\CurveFigure;
use Plinth\Core\Site\Leg;
use Plinth\Core\Site\Turns;
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
    /** A longer one was meant in another unit. */
    private const LONGEST_MM = 5e6;

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

    /** of a curve, as it is written; empty where the leg is straight */
    #[ORM\Column(length: 60)]
    private string $radius = '';

    #[ORM\Column(length: 5)]
    private Turns $turns = Turns::Left;

    /** what of a curve the length gives */
    #[ORM\Column(length: 5)]
    private CurveFigure $gives = CurveFigure::Chord;

    /** whether it was computed to close the boundary: nothing tests it */
    #[ORM\Column]
    private bool $computed = false;

    public function values(): array
    {
        return [
            'boundary' => $this->boundary->toRfc4122(),
            'order' => $this->order,
            'length' => $this->length,
            'bearing' => $this->bearing,
            'unit' => $this->unit->value,
            'radius' => $this->radius,
            'turns' => $this->turns->value,
            'gives' => $this->gives->value,
            'computed' => $this->computed,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->boundary = $values->id('boundary');
        $this->order = $values->count('order');
        $this->length = $values->text('length', 60);
        $this->bearing = $values->text('bearing', 40);
        $this->unit = $values->choice('unit', LengthUnit::class);
        $this->radius = $values->text('radius', 60);
        $this->turns = $values->choiceOr('turns', Turns::Left);
        $this->gives = $values->choiceOr('gives', CurveFigure::Chord);
        $this->computed = $values->flag('computed');
        $mm = $this->toCore()->mm;
        if ($mm > self::LONGEST_MM) {
            throw Refusal::invalid(
                'leg-too-long',
                \sprintf(
                    '“%s” makes a leg of %.0f km: a bare number along a boundary is in %s. Write its unit too, as in %s.',
                    $this->length,
                    $mm / 1e6,
                    LengthUnit::Foot === $this->unit ? 'feet' : 'metres',
                    LengthUnit::Foot === $this->unit ? "61' 8\"" : '18810 mm',
                ),
                $values->at('length'),
            );
        }
        if ($mm <= 0.0) {
            throw Refusal::invalid(
                'length-not-positive',
                \sprintf('A leg must be longer than zero, and “%s” is not.', $this->length),
                $values->at('length'),
            );
        }
    }

    public function isComputed(): bool
    {
        return $this->computed;
    }

    public function toCore(): Leg
    {
        return Leg::written($this->bearing, $this->length, $this->unit, $this->radius, $this->turns, $this->gives);
    }
}
