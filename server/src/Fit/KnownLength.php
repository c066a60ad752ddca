<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Fitting\Along;
use Plinth\Core\Fitting\Standing;
use Plinth\Core\Units\Length;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Refusal;

/** A true distance between two picks, with the text as typed. */
#[ORM\Entity]
#[ORM\Index(fields: ['project'])]
#[ORM\Index(fields: ['drawing'])]
class KnownLength extends ProjectRow
{
    use BetweenPicks;

    #[ORM\Column(length: 120)]
    private string $text = '';

    /** unit that a bare number in the text had when it was typed */
    #[ORM\Column(length: 4)]
    private LengthUnit $unit = LengthUnit::Millimetre;

    /** what the text says; follows from it */
    #[ORM\Column]
    private float $mm = 0.0;

    #[ORM\Column]
    private float $stepMm = 0.0;

    #[ORM\Column(length: 24)]
    private Standing $standing = Standing::Figured;

    #[ORM\Column(length: 12)]
    private Ends $ends = Ends::OuterFace;

    #[ORM\Column(length: 10)]
    private Along $along = Along::Straight;

    #[ORM\Column]
    private bool $heldOut = false;

    public static function type(): RowType
    {
        return RowType::KnownLength;
    }

    public function values(): array
    {
        return [
            'drawing' => $this->drawing->toRfc4122(), 'a' => $this->a->toRfc4122(), 'b' => $this->b->toRfc4122(),
            'text' => $this->text, 'unit' => $this->unit->value, 'mm' => $this->mm, 'stepMm' => $this->stepMm,
            'standing' => $this->standing->value, 'ends' => $this->ends->value, 'along' => $this->along->value, 'heldOut' => $this->heldOut,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->takePicks($values);
        $this->text = $values->text('text');
        $this->unit = $values->choice('unit', LengthUnit::class);
        $length = LengthParser::parse($this->text, $this->unit);
        if ($length->mm <= 0.0) {
            throw Refusal::invalid('length-not-positive', \sprintf('A known length must be longer than zero, and “%s” is not.', $this->text), $values->at('text'));
        }
        $this->mm = $length->mm;
        $this->stepMm = $length->stepMm;
        $this->standing = $values->choice('standing', Standing::class);
        $this->ends = $values->choice('ends', Ends::class);
        $this->along = $values->choice('along', Along::class);
        $this->heldOut = $values->flag('heldOut');
    }

    public function length(): Length
    {
        return Length::ofMillimetres($this->mm, $this->stepMm);
    }

    public function standing(): Standing
    {
        return $this->standing;
    }

    public function along(): Along
    {
        return $this->along;
    }

    public function heldOut(): bool
    {
        return $this->heldOut;
    }
}
