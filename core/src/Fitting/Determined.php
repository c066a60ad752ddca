<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

/** What the observations say anything about. The rest stayed at the start. */
final readonly class Determined
{
    public function __construct(public bool $scale, public bool $turn, public bool $place)
    {
    }

    /** @return list<string> names of the parameters that stay at the start */
    public function held(): array
    {
        return array_values(array_filter([$this->scale ? '' : 'scale', $this->turn ? '' : 'turn', $this->place ? '' : 'place']));
    }
}
