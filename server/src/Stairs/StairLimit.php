<?php

declare(strict_types=1);

namespace Plinth\Server\Stairs;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Plan\Model\StairLimit as CoreStairLimit;
use Plinth\Core\Plan\Model\StairMeasure;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;

/** What the project asks of one measure of its stairs, instead of what is common; mm, degrees of a pitch. */
#[Kind('stairLimit', isMoved: false)]
#[ORM\Entity]
class StairLimit extends ProjectRow
{
    private const LARGEST = 10_000.0;

    #[ORM\Column(length: 8)]
    private StairMeasure $measure = StairMeasure::Rise;

    #[ORM\Column(nullable: true)]
    private ?float $least = null;

    #[ORM\Column(nullable: true)]
    private ?float $most = null;

    /** where it comes from, in its author's words */
    #[ORM\Column(length: 120)]
    private string $standing = '';

    public function values(): array
    {
        return ['measure' => $this->measure->value, 'least' => $this->least, 'most' => $this->most, 'standing' => $this->standing];
    }

    public function take(RowValues $values): void
    {
        $this->measure = $values->choice('measure', StairMeasure::class);
        $this->least = $values->optionalPositive('least', self::LARGEST);
        $this->most = $values->optionalPositive('most', self::LARGEST);
        $this->standing = $values->name('standing');
        if ((null === $this->least && null === $this->most) || ($this->least ?? 0.0) > ($this->most ?? \INF)) {
            throw UnreadableDocument::outOfRange($values->at('least'), 'a least, a most, or both in this order');
        }
    }

    public function bounds(): CoreStairLimit
    {
        return new CoreStairLimit($this->measure, $this->least, $this->most, $this->standing);
    }
}
