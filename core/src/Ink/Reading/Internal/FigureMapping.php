<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

use Plinth\Core\Numerics\Cholesky;

/**
 * A homography from the ink to millimetres about the drawing's middle with the drawing's grid level: with x and y in parts of the longer
 * side W, X = W·exp(a + d/2)·(x + s·y)/w and Y = W·exp(a − d/2)·y/w, w = 1 + g·x + h·y. It knows neither the drawing's turn nor its place.
 *
 * @internal
 */
final readonly class FigureMapping
{
    /** standard deviations of d and s: copiers stretch by a per cent, and pull askew by less; by trial */
    private const STRETCH = 0.012;
    private const SHEAR = 0.006;
    /** part of a length that drawings keep to, and px that marks are found to, while the mapping is sought; by trial */
    private const DRAWN = 0.0015;
    private const MARK_PX = 0.7;
    /** rounds of least squares at most, and a move that changes nothing any more */
    private const ROUNDS = 6;
    private const SETTLED = 1e-6;
    /** by how much parameters are moved to see what that does */
    private const STEP = 1e-5;
    /** w below which a place lies behind the camera */
    private const HORIZON = 0.05;

    /**
     * @param array{float, float, float, float, float} $p a, d, s, g, h
     * @param float $side W, px of the ink
     */
    public function __construct(public array $p, private float $side)
    {
    }

    /** By how much a span is longer than its figure says, as a logarithm. */
    public function off(Way $way): float
    {
        return self::length($way->ends, $this->p, $this->side) - $way->mm;
    }

    /** @return array{float, float, float, float} x and y of both ends of a span, mm from the drawing's middle, y down */
    public function ends(Way $way): array
    {
        [$a, $d, $s, $g, $h] = $this->p;
        [$x1, $y1, $x2, $y2] = $way->ends;
        $k1 = $this->side * exp($a) / max(self::HORIZON, 1.0 + $g * $x1 + $h * $y1);
        $k2 = $this->side * exp($a) / max(self::HORIZON, 1.0 + $g * $x2 + $h * $y2);
        [$wide, $high] = [exp($d / 2.0), exp(-$d / 2.0)];

        return [$k1 * $wide * ($x1 + $s * $y1), $k1 * $high * $y1, $k2 * $wide * ($x2 + $s * $y2), $k2 * $high * $y2];
    }

    /**
     * Adjusted to some ways by least squares with what is known beforehand; what is far off counts less and less (soft L1).
     *
     * @param iterable<Way> $ways one for each figure
     * @param float $leans standard deviation of g and h
     */
    public function adjustedTo(iterable $ways, float $leans): self
    {
        $known = [0.0, 1.0 / self::STRETCH ** 2, 1.0 / self::SHEAR ** 2, 1.0 / $leans ** 2, 1.0 / $leans ** 2];
        $p = $this->p;
        for ($round = 0; $round < self::ROUNDS; ++$round) {
            $normal = [];
            $right = [];
            foreach ($known as $i => $weight) {
                $normal[$i] = array_fill(0, 5, 0.0);
                $normal[$i][$i] = $weight + 1e-9;
                $right[$i] = -$weight * $p[$i];
            }
            foreach ($ways as $way) {
                $length = self::length($way->ends, $p, $this->side);
                $off = $length - $way->mm;
                $slopes = [];
                for ($i = 0; $i < 5; ++$i) {
                    $moved = $p;
                    $moved[$i] += self::STEP;
                    $slopes[] = (self::length($way->ends, $moved, $this->side) - $length) / self::STEP;
                }
                $sigma = hypot(self::DRAWN, self::MARK_PX / $way->long);
                $weight = 1.0 / $sigma ** 2 / sqrt(1.0 + ($off / $sigma) ** 2);
                for ($i = 0; $i < 5; ++$i) {
                    $right[$i] -= $weight * $slopes[$i] * $off;
                    for ($j = 0; $j < 5; ++$j) {
                        $normal[$i][$j] += $weight * $slopes[$i] * $slopes[$j];
                    }
                }
            }
            $move = Cholesky::of($normal)?->solve($right);
            if (null === $move) {
                break;
            }
            $p = [$p[0] + $move[0], $p[1] + $move[1], $p[2] + $move[2], $p[3] + $move[3], $p[4] + $move[4]];
            if (hypot(hypot($move[0], $move[1]), hypot(hypot($move[2], $move[3]), $move[4])) < self::SETTLED) {
                break;
            }
        }

        return new self($p, $this->side);
    }

    /**
     * As a matrix row by row: to mm with y up, from px of the ink.
     *
     * @param float $turn of the drawing's grid, radians with y down
     * @param float $x of the drawing's middle, px, and $y likewise
     *
     * @return array{float, float, float, float, float, float, float, float, float}
     */
    public function matrix(float $turn, float $x, float $y): array
    {
        [$a, $d, $s, $g, $h] = $this->p;
        [$c, $n] = [cos($turn) / $this->side, sin($turn) / $this->side];
        // x = c·X + n·Y + x0 and y = −n·X + c·Y + y0
        $x0 = -($c * $x + $n * $y);
        $y0 = $n * $x - $c * $y;
        $m = $this->side * exp($a + $d / 2.0);
        $k = -$this->side * exp($a - $d / 2.0);

        return [
            $m * ($c - $s * $n), $m * ($n + $s * $c), $m * ($x0 + $s * $y0),
            -$k * $n, $k * $c, $k * $y0,
            $g * $c - $h * $n, $g * $n + $h * $c, 1.0 + $g * $x0 + $h * $y0,
        ];
    }

    /**
     * Logarithm of the mm between two places.
     *
     * @param array{float, float, float, float} $ends
     * @param array{float, float, float, float, float} $p
     */
    private static function length(array $ends, array $p, float $side): float
    {
        [$a, $d, $s, $g, $h] = $p;
        [$x1, $y1, $x2, $y2] = $ends;
        $w1 = max(self::HORIZON, 1.0 + $g * $x1 + $h * $y1);
        $w2 = max(self::HORIZON, 1.0 + $g * $x2 + $h * $y2);
        $x = exp($d / 2.0) * (($x2 + $s * $y2) / $w2 - ($x1 + $s * $y1) / $w1);
        $y = exp(-$d / 2.0) * ($y2 / $w2 - $y1 / $w1);

        return $a + log($side * max(1e-9, hypot($x, $y)));
    }
}
