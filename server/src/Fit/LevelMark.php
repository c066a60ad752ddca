<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Source\Drawing;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A height on an elevation or section. One whose height is stated places the drawing: the ground floor's finished level is 0. */
#[Kind('levelMark')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'drawing'])]
class LevelMark extends ProjectRow implements Statement
{
    #[Refers(Drawing::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $drawing;

    #[Refers(Pick::class)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $pick;

    #[ORM\Column(length: 16)]
    private LevelKind $kind = LevelKind::Other;

    #[ORM\Column(length: 60)]
    private string $name = '';

    /** its height as typed; empty where it is to be found */
    #[ORM\Column(length: 60)]
    private string $text = '';

    /** unit that a bare number in the text had when it was typed */
    #[ORM\Column(length: 4)]
    private LengthUnit $unit = LengthUnit::Millimetre;

    public function values(): array
    {
        return [
            'drawing' => $this->drawing->toRfc4122(),
            'pick' => $this->pick->toRfc4122(),
            'kind' => $this->kind->value,
            'name' => $this->name,
            'text' => $this->text,
            'unit' => $this->unit->value,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->drawing = $values->id('drawing');
        $this->pick = $values->id('pick');
        $this->kind = $values->choice('kind', LevelKind::class);
        $this->name = $values->text('name', 60);
        $this->text = $values->text('text', 60);
        $this->unit = $values->choice('unit', LengthUnit::class);
        $this->statedMm();
    }

    public function drawing(): Uuid
    {
        return $this->drawing;
    }

    public function pick(): Uuid
    {
        return $this->pick;
    }

    /** @return float|null mm above zero; null where it is to be found */
    public function statedMm(): ?float
    {
        return '' === $this->text ? null : LengthParser::parse($this->text, $this->unit)->mm;
    }
}
