<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Model;

/** A dimension of a view that somebody has moved or left out. */
final readonly class ViewMark
{
    /**
     * @param string $of which one: what it runs between, so that it is the same one after the plan has changed
     * @param float $dx mm of paper to the right of where it would stand
     * @param float $dy mm of paper down
     * @param bool $hidden whether it is left out
     */
    public function __construct(public string $of, public float $dx = 0.0, public float $dy = 0.0, public bool $hidden = false)
    {
    }
}
