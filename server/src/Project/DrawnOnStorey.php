<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

/** Rows that were drawn on a storey, and may be copied or moved to another one. What stands on them goes along. */
interface DrawnOnStorey
{
}
