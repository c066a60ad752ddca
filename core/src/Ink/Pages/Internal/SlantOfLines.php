<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages\Internal;

use Plinth\Core\Numerics\Cholesky;
use Plinth\Core\Numerics\Median;

/**
 * The turn, slant and skewness of a flat drawing whose lines run along two axes, from the directions of many short pieces of them.
 *
 * On the drawing as SlantedView has it lines across keep b, and those down keep a + q·b. Each piece says in which direction that is
 * at its place (least squares with those left out that lie far off: pieces of stairs and of slanting walls).
 *
 * @internal
 */
final readonly class SlantOfLines
{
    /** px that the points of an edge scatter by, and radians that a drawn line wavers by on paper; by trial on drawn sheets */
    private const POINT_PX = 0.25;
    private const WAVERS = 0.0006;
    /** radians off that a piece still counts, round by round; then so many times the usual */
    private const OFF = [0.06, 0.03, 0.015, 0.01];
    private const USUAL = 3.0;
    private const ROUNDS = 12;
    private const STEP = 1e-6;
    /** pieces of a family that say anything */
    private const LEAST = 8;
    /** what is known beforehand of q, g and h, for a family that does not show: standard deviations */
    private const KNOWN = [1 => 0.05, 2 => 0.15, 3 => 0.15];
    /** standard deviations beyond which lines converge, and not only by chance; and the least that can be told apart */
    private const SURE = 4.0;
    private const LEANS = 0.002;
    private const LEAST_SIGMA = 0.0005;

    /**
     * @param bool $byBoth whether lines of both families show
     * @param array{float, float, float, float} $p turn (radians, counter-clockwise), q, g, h
     * @param list<list<float>> $covariance of p
     */
    private function __construct(public array $p, public array $covariance, public bool $byBoth)
    {
    }

    /** Whether lines of either family converge. */
    public function converges(): bool
    {
        return max(abs($this->p[2]) / $this->sigma(2), abs($this->p[3]) / $this->sigma(3)) > self::SURE
            && max(abs($this->p[2]), abs($this->p[3])) > self::LEANS;
    }

    /** Standard deviation of q, g or h: paper is never quite flat, lines never quite straight. */
    public function sigma(int $i): float
    {
        return max(self::LEAST_SIGMA, sqrt($this->covariance[$i][$i]));
    }

    /**
     * @param list<EdgePiece> $across
     * @param list<EdgePiece> $down their directions are those of lines across that they stand at a right angle to
     * @param array{float, float, float, float} $start turn, q, g and h to begin with
     */
    public static function of(array $across, array $down, array $start, float $width, float $height): ?self
    {
        $unit = hypot($width, $height) / 2.0;
        $pieces = [];
        foreach ([[$across, false], [$down, true]] as [$segments, $isDown]) {
            foreach ($segments as $s) {
                $sigma = hypot(self::POINT_PX / sqrt($s->weight), self::WAVERS);
                $pieces[] = [($s->x - $width / 2.0) / $unit, ($height / 2.0 - $s->y) / $unit, -$s->direction, $sigma, $isDown];
            }
        }
        $fit = new self($start, [], false);
        for ($round = 0; $round < self::ROUNDS; ++$round) {
            $fit = $fit->adjusted($fit->near($pieces, self::OFF[$round] ?? null));
            if (null === $fit) {
                return null;
            }
        }

        return $fit;
    }

    /**
     * Pieces that run as their family does.
     *
     * @param list<array{float, float, float, float, bool}> $pieces u, v, direction, its standard deviation, whether it runs down
     * @param float|null $limit radians that they may be off; null for what is usual among them
     *
     * @return list<array{float, float, float, float, bool}>
     */
    private function near(array $pieces, ?float $limit): array
    {
        $usual = [] === $pieces ? 1.0 : 1.4826 * Median::of(
            array_map(fn (array $piece): float => abs(self::off($this->p, $piece)) / $piece[3], $pieces),
        );

        return array_values(array_filter(
            $pieces,
            fn (array $piece): bool => abs(self::off($this->p, $piece)) <= ($limit ?? self::USUAL * max(1.0, $usual) * $piece[3]),
        ));
    }

    /**
     * One round of least squares.
     *
     * @param list<array{float, float, float, float, bool}> $pieces
     */
    private function adjusted(array $pieces): ?self
    {
        $p = $this->p;
        $ofDown = \count(array_filter($pieces, static fn (array $piece): bool => $piece[4]));
        $ofAcross = \count($pieces) - $ofDown;
        if (max($ofAcross, $ofDown) < self::LEAST) {
            return null;
        }
        $normal = array_fill(0, 4, array_fill(0, 4, 0.0));
        $right = array_fill(0, 4, 0.0);
        foreach (self::KNOWN as $i => $sigma) {
            $normal[$i][$i] = 1.0 / $sigma ** 2;
            $right[$i] = -$p[$i] / $sigma ** 2;
        }
        $squares = 0.0;
        foreach ($pieces as $piece) {
            $off = self::off($p, $piece);
            $slopes = [];
            for ($i = 0; $i < 4; ++$i) {
                $moved = $p;
                $moved[$i] += self::STEP;
                $slopes[] = (self::off($moved, $piece) - $off) / self::STEP;
            }
            $weight = 1.0 / $piece[3] ** 2;
            for ($i = 0; $i < 4; ++$i) {
                $right[$i] -= $weight * $slopes[$i] * $off;
                for ($j = 0; $j < 4; ++$j) {
                    $normal[$i][$j] += $weight * $slopes[$i] * $slopes[$j];
                }
            }
            $squares += $weight * $off ** 2;
        }
        $factor = Cholesky::of($normal);
        if (null === $factor) {
            return null;
        }
        $move = $factor->solve($right);
        $scatter = max(1.0, $squares / (\count($pieces) - 4));

        return new self(
            [$p[0] + $move[0], $p[1] + $move[1], $p[2] + $move[2], $p[3] + $move[3]],
            array_map(
                static fn (array $row): array => array_map(static fn (float $c): float => $c * $scatter, $row),
                $factor->inverse(),
            ),
            min($ofAcross, $ofDown) >= self::LEAST,
        );
    }

    /** The drawing as it is seen, but for what it is askew. */
    public function view(): SlantedView
    {
        return new SlantedView($this->p[0], $this->p[2], $this->p[3]);
    }

    /**
     * The direction of lines across at a place of the page.
     *
     * @return array{float, float} radians counter-clockwise, and their standard deviation
     */
    public function directionAt(float $u, float $v): array
    {
        $here = -self::off($this->p, [$u, $v, 0.0, 1.0, false]);
        $slopes = [];
        for ($i = 0; $i < 4; ++$i) {
            $moved = $this->p;
            $moved[$i] += self::STEP;
            $slopes[] = (-self::off($moved, [$u, $v, 0.0, 1.0, false]) - $here) / self::STEP;
        }
        $variance = 0.0;
        foreach ($slopes as $i => $a) {
            foreach ($slopes as $k => $b) {
                $variance += $a * $this->covariance[$i][$k] * $b;
            }
        }

        return [$here, sqrt(max(0.0, $variance))];
    }

    /**
     * By how much a piece runs off the direction that lines of its family have at its place, radians counter-clockwise.
     *
     * @param array{float, float, float, float} $p
     * @param array{float, float, float, float, bool} $piece u, v, direction, its standard deviation, whether it runs down
     */
    private static function off(array $p, array $piece): float
    {
        [$turn, $q, $g, $h] = $p;
        [$u, $v, $direction, , $isDown] = $piece;
        $w = 1.0 + $g * $u + $h * $v;
        [$c, $s] = [cos($turn), sin($turn)];
        // What a line keeps is f = (α·u + β·v) / w; along it α·du + β·dv = f·(g·du + h·dv).
        [$alpha, $beta] = $isDown ? [$c - $q * $s, $s + $q * $c] : [-$s, $c];
        $f = ($alpha * $u + $beta * $v) / $w;
        [$du, $dv] = [$beta - $f * $h, $f * $g - $alpha];
        // Down: as the line across that it would stand at a right angle to.
        [$du, $dv] = $isDown ? [-$dv, $du] : [$du, $dv];
        $runs = atan2($dv, $du);

        return fmod($direction - $runs + 2.5 * \M_PI, \M_PI) - 0.5 * \M_PI;
    }
}
