<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages\Internal;

use Plinth\Core\Numerics\Cholesky;

/**
 * How the direction of a family of lines changes over a page: a plane through the directions of its parts, those far off it left out.
 *
 * @internal
 */
final readonly class Directions
{
    /** degrees that a part's direction lies off the plane at most, round by round */
    private const OFF = [2.0, 0.7, 0.3];
    /** parts: a plane has three unknowns */
    private const LEAST_PARTS = 5;

    /**
     * @param float $middle degrees in the middle of the parts, and $sigmaMiddle their standard deviation
     * @param array{float, float} $over degrees by which they change over the whole width and the whole height
     * @param array{float, float} $sigmas their standard deviations
     */
    private function __construct(
        public float $middle,
        public float $sigmaMiddle,
        private array $over,
        private array $sigmas,
        private float $width,
        private float $height,
    ) {
    }

    /**
     * @param list<array{float, float, float, float}> $parts place from −0.5 to 0.5 across and down, degrees off, weight
     * @param float $width of the parts together, px, and $height likewise
     */
    public static function through(array $parts, float $width, float $height): ?self
    {
        $plane = [0.0, 0.0, 0.0];
        $factor = null;
        $near = [];
        foreach (self::OFF as $round => $limit) {
            $near = array_values(array_filter(
                $parts,
                static fn (array $f): bool => 0 === $round || abs($f[2] - $plane[0] - $plane[1] * $f[0] - $plane[2] * $f[1]) < $limit,
            ));
            if (\count($near) < self::LEAST_PARTS) {
                return null;
            }
            $normal = array_fill(0, 3, [0.0, 0.0, 0.0]);
            $right = [0.0, 0.0, 0.0];
            foreach ($near as [$x, $y, $off, $weight]) {
                $row = [1.0, $x, $y];
                foreach ($row as $i => $a) {
                    $right[$i] += $weight * $a * $off;
                    foreach ($row as $k => $b) {
                        $normal[$i][$k] += $weight * $a * $b;
                    }
                }
            }
            $factor = Cholesky::of($normal);
            if (null === $factor) {
                return null;
            }
            $plane = $factor->solve($right);
        }
        $rest = array_map(static fn (array $f): float => abs($f[2] - $plane[0] - $plane[1] * $f[0] - $plane[2] * $f[1]), $near);
        $spare = \count($near) - 3.0;
        $variance = array_sum(array_map(static fn (array $f, float $off): float => $f[3] * $off ** 2, $near, $rest)) / max(1.0, $spare);
        $inverse = $factor->inverse();

        return new self(
            $plane[0],
            1.5 * array_sum($rest) / \count($rest) / sqrt($spare + 1.0),
            [$plane[1], $plane[2]],
            [sqrt($variance * $inverse[1][1]), sqrt($variance * $inverse[2][2])],
            $width,
            $height,
        );
    }

    /** Degrees by which the direction changes over the page at most. */
    public function leansBy(): float
    {
        return max(abs($this->over[0]), abs($this->over[1]));
    }

    /**
     * How it changes at a right angle to the lines.
     *
     * @param float $degrees of the lines, clockwise as seen
     *
     * @return array{float, float} radians a pixel, and their standard deviation
     */
    public function change(float $degrees): array
    {
        [$c, $s] = [cos(deg2rad($degrees)), sin(deg2rad($degrees))];
        $x = -$s / $this->width;
        $y = $c / $this->height;

        return [
            deg2rad($this->over[0] * $x + $this->over[1] * $y),
            deg2rad(hypot($this->sigmas[0] * $x, $this->sigmas[1] * $y)),
        ];
    }
}
