<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

/** What the plan is for. The tolerance over 10 m by which ± is judged: common practice, no source. */
enum Purpose: string
{
    case QuickModel = 'quick model';
    case Planning = 'planning';
    case Construction = 'construction';

    public function toleranceMmPer10m(): float
    {
        return match ($this) {
            self::QuickModel => 50.0,
            self::Planning => 20.0,
            self::Construction => 5.0,
        };
    }
}
