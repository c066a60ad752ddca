<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Http\Refusal;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** What lies on a storey, or stands on a side. */
trait OnStoreyOrSide
{
    #[Refers(Storey::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $storey = null;

    #[Refers(Side::class)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $side = null;

    private function takeWhere(RowValues $values): void
    {
        $this->storey = $values->optionalId('storey');
        $this->side = $values->optionalId('side');
        if ((null === $this->side) === (null === $this->storey)) {
            throw Refusal::invalid('one-place', 'It lies on a storey or stands on a side: name one of the two.', $values->at('storey'));
        }
    }

    /** @return array{storey: ?string, side: ?string} */
    private function where(): array
    {
        return ['storey' => $this->storey?->toRfc4122(), 'side' => $this->side?->toRfc4122()];
    }
}
