<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

/** Rows that can be laid elsewhere in their plane, turned or turned over, wherever that is: their places and rises say all there is. */
interface Arrangeable
{
}
