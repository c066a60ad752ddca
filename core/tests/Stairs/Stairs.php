<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Stairs;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Stair;
use Plinth\Core\Plan\Model\StairBuild;
use Plinth\Core\Plan\Model\StairTurn;

/** Stairs of every shape, anywhere and turned anyhow. */
final readonly class Stairs
{
    public const SHAPES = ['straight', 'quarter', 'winders', 'half landing', 'half circle', 'between flights', 'spiral', 'free'];

    public function __construct(private float $x = 0.0, private float $y = 0.0, private float $degrees = 0.0, private bool $isMirrored = false)
    {
    }

    public function at(float $x, float $y): Point
    {
        [$cos, $sin] = [cos(deg2rad($this->degrees)), sin(deg2rad($this->degrees))];
        $y = $this->isMirrored ? -$y : $y;

        return new Point($this->x + $cos * $x - $sin * $y, $this->y + $sin * $x + $cos * $y);
    }

    /** @param array{build?: StairBuild, thickness?: float, nosing?: float, leftRail?: bool, rightRail?: bool, headroom?: float} $more */
    public function of(string $shape, int $risers = 15, float $width = 900.0, array $more = []): Stair
    {
        $lines = [
            'straight' => [[0, 0], [3500, 0]],
            'quarter' => [[0, 0], [2450, 0], [2450, 2200]],
            'winders' => [[0, 0], [2000, 0], [2000, 2200]],
            'half landing' => [[0, 0], [2450, 0], [2450, 1000], [0, 1000]],
            'half circle' => [[0, 0], [2000, 0]],
            'between flights' => [[0, 0], [1500, 0], [1500, 2000], [0, 2000]],
            'spiral' => [[0, 0], [0, 1300]],
            'free' => [],
        ];
        $bent = ['half circle' => [1000.0], 'between flights' => [0.0, -1000.0, 0.0], 'spiral' => [-1500.0]];
        $side = $this->isMirrored ? -1.0 : 1.0;

        return new Stair(
            's',
            array_map(fn (array $p): Point => $this->at((float) $p[0], (float) $p[1]), $lines[$shape] ?? []),
            array_map(static fn (float $rise): float => $side * $rise, $bent[$shape] ?? []),
            'spiral' === $shape ? min($width, 1000.0) : $width,
            $risers,
            'free' === $shape ? $this->fan($risers - 1, $width) : [],
            'winders' === $shape ? StairTurn::Winders : StairTurn::Landing,
            ...$more,
        );
    }

    /**
     * Treads round half a circle, each of its own shape: one edge an arc, the others straight.
     *
     * @return list<Contour>
     */
    public function fan(int $count, float $width): array
    {
        $treads = [];
        $on = fn (float $radius, float $part): Point => $this->at($radius * cos(\M_PI * $part), $radius * sin(\M_PI * $part));
        [$inner, $outer] = [1000.0 - $width / 2.0, 1000.0 + $width / 2.0];
        for ($k = 0; $k < $count; ++$k) {
            [$from, $to] = [$k / $count, ($k + 1) / $count];
            $sagitta = $outer * (1.0 - cos(\M_PI / $count / 2.0));
            $treads[] = new Contour(
                [$on($inner, $from), $on($outer, $from), $on($outer, $to), $on($inner, $to)],
                [0.0, $this->isMirrored ? $sagitta : -$sagitta, 0.0, 0.0],
            );
        }

        return $treads;
    }
}
