<?php

declare(strict_types=1);

namespace Plinth\Core\Units\Internal;

use Brick\Math\BigRational;

/** A length as it was typed, exactly, or a number that may turn out to be a count. */
final readonly class Quantity
{
    /** @param TypedNumber|null $bare the number alone, where no unit was written */
    private function __construct(public BigRational $mm, public BigRational $stepMm, public int $at, public ?TypedNumber $bare)
    {
    }

    public static function of(BigRational $mm, BigRational $stepMm, int $at): self
    {
        return new self($mm, $stepMm, $at, null);
    }

    public static function bare(TypedNumber $number, int $at): self
    {
        return new self($number->value, $number->step, $at, $number);
    }

    /** A count repeats one rounding. */
    public function times(BigRational $count): self
    {
        return new self($this->mm->multipliedBy($count), $this->stepMm->multipliedBy($count), $this->at, $this->bare);
    }
}
