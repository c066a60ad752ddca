<?php

declare(strict_types=1);

namespace Plinth\Core\Plan;

use Plinth\Core\Geometry\Point;

/** A column about its centre, mm; a round one has its width as diameter. */
final readonly class Column
{
    public function __construct(public string $id, public Point $centre, public float $width, public float $depth, public bool $round = false)
    {
    }

    /** @return list<array{float, float}> counter-clockwise; a round one as a polygon of the same area */
    public function outline(): array
    {
        $ring = SettingOut::column($this->centre->x, $this->centre->y, $this->width, $this->depth, $this->round);
        if (!$this->round) {
            return $ring;
        }
        $n = \count($ring);
        // A regular polygon in a circle of radius r has n/2 r² sin(2π/n).
        $grow = sqrt(2.0 * \M_PI / ($n * sin(2.0 * \M_PI / $n)));

        return array_map(fn (array $p): array => [$this->centre->x + $grow * ($p[0] - $this->centre->x), $this->centre->y + $grow * ($p[1] - $this->centre->y)], $ring);
    }
}
