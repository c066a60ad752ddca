<?php

declare(strict_types=1);

namespace Plinth\Server\Enclosure;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Http\Refusal;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** Two classes that may lie over one place. */
#[Kind('classesTogether', isMoved: false)]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'one'])]
#[ORM\Index(fields: ['project', 'other'])]
class ClassesTogether extends ProjectRow
{
    #[Refers(FireClass::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $one;

    #[Refers(FireClass::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $other;

    public function values(): array
    {
        return ['one' => $this->one->toRfc4122(), 'other' => $this->other->toRfc4122()];
    }

    public function take(RowValues $values): void
    {
        $this->one = $values->id('one');
        $this->other = $values->id('other');
        if ($this->one->equals($this->other)) {
            throw Refusal::invalid('same-class', 'A class lies over itself as it likes: name another one.', $values->at('other'));
        }
    }

    /** @return array{string, string} */
    public function both(): array
    {
        return [$this->one->toRfc4122(), $this->other->toRfc4122()];
    }
}
