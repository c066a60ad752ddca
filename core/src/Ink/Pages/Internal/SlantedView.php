<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages\Internal;

/**
 * How a page that recedes and is turned shows a drawing: (u, v) of the page, centre 0, y up, unit half its diagonal, shows
 * (u, v) / (1 + g·u + h·v), turned back.
 *
 * @internal
 */
final readonly class SlantedView
{
    /**
     * @param float $turn radians, counter-clockwise
     * @param float $g by how much it recedes along u, and $h along v
     */
    public function __construct(private float $turn, private float $g, private float $h)
    {
    }

    /**
     * A place of the page on the drawing.
     *
     * @return array{float, float}
     */
    public function flat(float $u, float $v): array
    {
        $w = 1.0 + $this->g * $u + $this->h * $v;

        return [(cos($this->turn) * $u + sin($this->turn) * $v) / $w, (cos($this->turn) * $v - sin($this->turn) * $u) / $w];
    }

    /**
     * Where a place of the drawing is seen on the page.
     *
     * @return array{float, float}
     */
    public function seen(float $a, float $b): array
    {
        [$u, $v] = [cos($this->turn) * $a - sin($this->turn) * $b, sin($this->turn) * $a + cos($this->turn) * $b];
        $w = 1.0 - $this->g * $u - $this->h * $v;

        return [$u / $w, $v / $w];
    }
}
