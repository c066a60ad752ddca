<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Reading;

use Plinth\Server\Job\Attempt;

/** What a piece of work may take in all, whatever its steps take of it; asked while each of them goes on. */
final readonly class Budget
{
    private float $until;

    public function __construct(private Attempt $attempt, private float $seconds)
    {
        $this->until = microtime(true) + $seconds;
    }

    /** @param float|null $part of the work that is done */
    public function __invoke(?float $part = null): void
    {
        $this->attempt->goesOn($part);
        if (microtime(true) > $this->until) {
            throw PictureFailure::tooLong($this->seconds);
        }
    }
}
