<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages\Internal;

/**
 * How a picture shows a sheet, by its four corners: by how much it recedes, and what the sheet's proportions say of the camera. With square
 * pixels and an axis through the picture's middle, images of its two sides h₁ and h₂ keep h₁ᵀ ω h₂ = 0 and h₁ᵀ ω h₁ = r² h₂ᵀ ω h₂, with
 * ω = diag(q, q, 1) and q = 1 / f² (Hartley & Zisserman, Multiple View Geometry, from memory): two equations for q where r is known.
 *
 * @internal
 */
final readonly class PhotographedSheet
{
    /** Longer over shorter side: ISO 216; the sheets it is told from, of ANSI/ASME Y14.1 and of architects' sets. From memory. */
    private const ISO = \M_SQRT2;
    private const OTHERS = [11.0 / 8.5, 17.0 / 11.0, 4.0 / 3.0, 3.0 / 2.0, 5.0 / 4.0, 1.0];
    /** part by which a sheet's side may be off: 1.5 mm of 297 (ISO 216, from memory), and paper that does not lie quite flat */
    private const CUT = 0.006;
    /** logarithm of focal lengths that whole sheets are taken with, over half the diagonal, and its scatter: common practice, no source */
    private const USUAL = [0.69, 0.4];
    /** by how much better, in χ², it is explained by ISO's proportions than by any others; and what it leaves at most */
    private const BETTER = 9.0;
    private const LEAVES = 6.0;
    /** A focal length known no better than to this part says nothing. */
    private const PART = 0.2;
    private const ROUNDS = 20;

    /**
     * @param array{float, float, float} $h1 image of the side along the top, homogeneous
     * @param array{float, float, float} $h2 image of the one down the left
     */
    private function __construct(private array $h1, private array $h2, private float $sigma)
    {
    }

    /**
     * By its corners; middle 0, y up, unit half the picture's diagonal.
     *
     * @param array{float, float} $a top left
     * @param array{float, float} $b top right
     * @param array{float, float} $c bottom right
     * @param array{float, float} $d bottom left
     * @param float $sigma of the corners
     */
    public static function of(array $a, array $b, array $c, array $d, float $sigma): ?self
    {
        [$ux, $uy, $vx, $vy] = [$b[0] - $c[0], $b[1] - $c[1], $d[0] - $c[0], $d[1] - $c[1]];
        [$sx, $sy] = [$a[0] - $b[0] + $c[0] - $d[0], $a[1] - $b[1] + $c[1] - $d[1]];
        $cross = $ux * $vy - $vx * $uy;
        if (0.0 === $cross) {
            return null;
        }
        [$g, $h] = [($sx * $vy - $vx * $sy) / $cross, ($ux * $sy - $sx * $uy) / $cross];

        return new self(
            [$b[0] - $a[0] + $g * $b[0], $b[1] - $a[1] + $g * $b[1], $g],
            [$d[0] - $a[0] + $h * $d[0], $d[1] - $a[1] + $h * $d[1], $h],
            $sigma,
        );
    }

    /** @return array{float, float, float, float} turn of its top edge, no skewness, and by how much it recedes: as SlantOfLines has them */
    public function start(): array
    {
        [[$x1, $y1, $z1], [$x2, $y2, $z2]] = [$this->h1, $this->h2];
        // Its horizon runs through where both pairs of edges meet.
        [$l1, $l2, $l3] = [$y1 * $z2 - $z1 * $y2, $z1 * $x2 - $x1 * $z2, $x1 * $y2 - $y1 * $x2];

        return [atan2($y1, $x1), 0.0, $l1 / $l3, $l2 / $l3];
    }

    /** @return array{ratio: float, part: float}|null */
    public function focal(): ?array
    {
        [$leaves, $ratio, $part] = min($this->by(self::ISO), $this->by(1.0 / self::ISO));
        if ($leaves > self::LEAVES || $part > self::PART) {
            return null;
        }
        foreach (self::OTHERS as $r) {
            foreach ([$r, 1.0 / $r] as $other) {
                if ($this->by($other)[0] < $leaves + self::BETTER) {
                    return null;
                }
            }
        }

        return ['ratio' => $ratio, 'part' => $part];
    }

    /**
     * The focal length that explains a sheet of some proportions best.
     *
     * @param float $r side along the top over the one down the left
     *
     * @return array{float, float, float} χ² that it leaves, f, and its standard deviation as a part of it
     */
    private function by(float $r): array
    {
        [[$x1, $y1, $z1], [$x2, $y2, $z2]] = [$this->h1, $this->h2];
        [$a1, $a2, $b] = [$x1 ** 2 + $y1 ** 2, $x2 ** 2 + $y2 ** 2, $x1 * $x2 + $y1 * $y2];
        // By the logarithm of f, which is known beforehand; both equations over the length that they are told in.
        $misses = function (float $l) use ($r, $a1, $a2, $b, $z1, $z2): array {
            $q = exp(-2.0 * $l);
            [$n1, $n2] = [$q * $a1 + $z1 ** 2, $q * $a2 + $z2 ** 2];
            $sigma = hypot(self::CUT, $this->sigma / sqrt(min($a1, $a2)));

            return [
                0.5 * log($n1 / ($r ** 2 * $n2)) / $sigma,
                ($q * $b + $z1 * $z2) / sqrt($n1 * $n2) / $sigma,
                ($l - self::USUAL[0]) / self::USUAL[1],
            ];
        };
        $l = self::USUAL[0];
        $normal = 1.0;
        for ($round = 0; $round < self::ROUNDS; ++$round) {
            [$at, $beside] = [$misses($l), $misses($l + 1e-5)];
            [$normal, $right] = [0.0, 0.0];
            foreach ($at as $i => $miss) {
                $slope = ($beside[$i] - $miss) / 1e-5;
                $normal += $slope ** 2;
                $right += $slope * $miss;
            }
            $l -= max(-0.3, min(0.3, $right / $normal));
        }

        return [array_sum(array_map(static fn (float $m): float => $m ** 2, $misses($l))), exp($l), 1.0 / sqrt($normal)];
    }
}
