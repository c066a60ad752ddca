<?php

declare(strict_types=1);

namespace Plinth\Server\Enclosure;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Exchange\PlanDocument\FireReader;
use Plinth\Core\Plan\Model\FireClass as CoreClass;
use Plinth\Core\Plan\Model\Hatch;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Refusal;

/** A class of fire resistance of the project. No two are called the same, however they are spelled. */
#[Kind('fireClass', isMoved: false)]
#[ORM\Entity]
class FireClass extends ProjectRow
{
    #[ORM\Column(length: FireReader::LONGEST)]
    private string $name = '';

    #[ORM\Column(length: 7)]
    private string $colour = CoreClass::COLOURS[0];

    #[ORM\Column(length: 8)]
    private Hatch $hatch = Hatch::Rising;

    public function values(): array
    {
        return ['name' => $this->name, 'colour' => $this->colour, 'hatch' => $this->hatch->value];
    }

    public function take(RowValues $values): void
    {
        $this->name = FireReader::name($values->name('name', FireReader::LONGEST), $values->at('name'));
        $this->colour = $values->text('colour', 7);
        if (1 !== preg_match('/^#[0-9a-f]{6}$/', $this->colour)) {
            throw UnreadableDocument::outOfRange($values->at('colour'), '# and six digits from 0 to f');
        }
        $this->hatch = $values->choice('hatch', Hatch::class);
    }

    public function ofPlan(): CoreClass
    {
        return new CoreClass($this->id->toRfc4122(), $this->name, $this->colour, $this->hatch);
    }

    /** The same for every spelling of it. */
    public function alike(): string
    {
        return CoreClass::key($this->name);
    }

    public function isThere(): Refusal
    {
        return Refusal::conflict(
            'class-is-there',
            \sprintf('%s is a class of this project already, however it is spelled. Take that one.', $this->name),
            'name',
        );
    }
}
