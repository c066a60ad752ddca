<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\Point;

/** A pick whose place in the model is known. */
final readonly class ControlPoint
{
    public function __construct(public string $id, public string $pick, public Point $at)
    {
    }
}
