<?php

declare(strict_types=1);

namespace Plinth\Server\Enclosure;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Plan\Model\EscapeLimit as CoreLimit;
use Plinth\Core\Plan\Model\EscapeMeasure;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Refusal;

/** What the project asks of one measure of its ways out; mm, degrees of an angle. */
#[Kind('escapeLimit', isMoved: false)]
#[ORM\Entity]
class EscapeLimit extends ProjectRow
{
    #[ORM\Column(length: 8)]
    private EscapeMeasure $measure = EscapeMeasure::ToExit;

    /** the least of an angle or a door, the most of anything else */
    #[ORM\Column]
    private float $bound = 0.0;

    /** where it comes from, in its author's words */
    #[ORM\Column(length: 120)]
    private string $standing = '';

    public function values(): array
    {
        return ['measure' => $this->measure->value, 'bound' => $this->bound, 'standing' => $this->standing];
    }

    public function take(RowValues $values): void
    {
        $this->measure = $values->choice('measure', EscapeMeasure::class);
        $this->bound = $values->positive('bound', $this->measure->largest());
        $this->standing = $values->name('standing');
    }

    public function ofPlan(): CoreLimit
    {
        return new CoreLimit($this->measure, $this->bound, $this->standing);
    }

    public function alike(): string
    {
        return $this->measure->value;
    }

    public function isThere(): Refusal
    {
        return Refusal::conflict('limit-is-there', 'This measure has a limit already: change that one.', 'measure');
    }
}
