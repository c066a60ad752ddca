<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Picks;

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Numerics\Median;

/**
 * A drawn line followed between two places: where it really runs, and whether it is straight. One that bows on the page although it is
 * straight in the building was bent by a lens or by paper that does not lie flat.
 */
final readonly class TracedLine
{
    /** looks along a line at most: more tell no more */
    public const MOST_SAMPLES = 24;
    /** looks that agree at least: a line and its scatter */
    private const LEAST_SAMPLES = 5;
    /** one look at the ink for so many pixels of the line */
    private const EVERY_PX = 18.0;
    /** part of the line left out at either end, where others meet it */
    private const ENDS = 0.06;
    /** degrees that the ink may run off the line between the two places */
    private const TURNED = 6.0;
    /** of the looks that must have found it */
    private const LEAST_PART = 0.4;

    /**
     * @param PixelPoint $a where the line passes the first place
     * @param PixelPoint $b where it passes the second
     * @param float $sigmaPx standard deviation of either, across the line
     * @param float $bowPx how far its middle lies off the straight line through its ends, to the left of a → b as seen
     * @param float $bowSigmaPx standard deviation of that
     */
    private function __construct(
        public PixelPoint $a,
        public PixelPoint $b,
        public float $sigmaPx,
        public float $bowPx,
        public float $bowSigmaPx,
        public int $samples,
    ) {
    }

    /**
     * @param float $reach how far off the ink is looked for, page pixels
     * @param int $most how often it is looked at
     *
     * @return self|null null where no line is found along most of the way
     */
    public static function between(
        PageInk $pageInk,
        PixelPoint $a,
        PixelPoint $b,
        float $reach,
        ?float $mmPerPixel = null,
        int $most = self::MOST_SAMPLES,
    ): ?self {
        $length = $a->distanceTo($b);
        $count = (int) max(self::LEAST_SAMPLES, min($most, floor($length / self::EVERY_PX)));
        [$ux, $uy] = [($b->x - $a->x) / max(1e-9, $length), ($b->y - $a->y) / max(1e-9, $length)];
        $direction = rad2deg(atan2(-$uy, $ux));
        $found = [];
        for ($k = 0; $k < $count; ++$k) {
            $t = self::ENDS + (1.0 - 2.0 * self::ENDS) * $k / ($count - 1);
            $hit = PickRefinement::lineNear(
                $pageInk,
                new PixelPoint($a->x + $t * $length * $ux, $a->y + $t * $length * $uy),
                $reach,
                $direction,
                self::TURNED,
                $mmPerPixel,
            );
            if (null === $hit) {
                continue;
            }
            [$dx, $dy] = [$hit->at->x - $a->x, $hit->at->y - $a->y];
            $found[] = [($dx * $ux + $dy * $uy) / $length, $dx * $uy - $dy * $ux];
        }
        $kept = self::together($found);

        return [] === $kept || \count($kept) < max(
            self::LEAST_SAMPLES,
            self::LEAST_PART * $count,
        ) ? null : self::through($kept, $a, $length, $ux, $uy);
    }

    /**
     * Without what lies off the others: where something else was found.
     *
     * @param list<array{float, float}> $found
     *
     * @return list<array{float, float}>
     */
    private static function together(array $found): array
    {
        if (\count($found) < self::LEAST_SAMPLES) {
            return [];
        }
        // Theil–Sen: the median slope, then the median of what is left (Sen 1968, from memory).
        $slopes = [];
        foreach ($found as $i => [$t, $off]) {
            foreach (\array_slice($found, $i + 1) as [$t2, $off2]) {
                if ($t2 - $t > 0.1) {
                    $slopes[] = ($off2 - $off) / ($t2 - $t);
                }
            }
        }
        $slope = Median::of($slopes);
        $middle = Median::of(array_map(static fn (array $f): float => $f[1] - $slope * $f[0], $found));
        $rest = array_map(static fn (array $f): float => abs($f[1] - $slope * $f[0] - $middle), $found);
        $limit = 1.0 + 4.0 * Median::of($rest);

        return array_values(array_filter($found, static fn (array $f): bool => abs($f[1] - $slope * $f[0] - $middle) <= $limit));
    }

    /** @param non-empty-list<array{float, float}> $found part of the way, and px off to the left */
    private static function through(array $found, PixelPoint $a, float $length, float $ux, float $uy): self
    {
        $n = \count($found);
        // By Legendre's polynomials on [0, 1]: 1, 2t − 1, 6t² − 6t + 1 are nearly independent for even samples.
        $rows = array_map(static fn (array $f): array => [1.0, 2.0 * $f[0] - 1.0, 6.0 * $f[0] ** 2 - 6.0 * $f[0] + 1.0, $f[1]], $found);
        [$c, $inverse] = self::solved($rows);
        $rest = 0.0;
        foreach ($rows as $row) {
            $rest += ($row[3] - $c[0] * $row[0] - $c[1] * $row[1] - $c[2] * $row[2]) ** 2;
        }
        $sigma = sqrt($rest / max(1, $n - 3));
        $at = static fn (float $t, float $off): PixelPoint => new PixelPoint(
            $a->x + $t * $length * $ux + $off * $uy,
            $a->y + $t * $length * $uy - $off * $ux,
        );

        return new self(
            $at(0.0, $c[0] - $c[1]),
            $at(1.0, $c[0] + $c[1]),
            2.0 * $sigma / sqrt($n),
            -1.5 * $c[2],
            1.5 * $sigma * sqrt(max(0.0, $inverse)),
            $n,
        );
    }

    /**
     * @param non-empty-list<array{float, float, float, float}> $rows three factors and a value each
     *
     * @return array{array{float, float, float}, float} coefficients by least squares, and the last one's cofactor
     */
    private static function solved(array $rows): array
    {
        $sum = static fn (int $i, int $j): float => array_sum(array_map(static fn (array $row): float => $row[$i] * $row[$j], $rows));
        [$aa, $ab, $ac, $bb, $bc, $cc] = [$sum(0, 0), $sum(0, 1), $sum(0, 2), $sum(1, 1), $sum(1, 2), $sum(2, 2)];
        [$av, $bv, $cv] = [$sum(0, 3), $sum(1, 3), $sum(2, 3)];
        $det = $aa * ($bb * $cc - $bc * $bc) - $ab * ($ab * $cc - $bc * $ac) + $ac * ($ab * $bc - $bb * $ac);
        $x = ($av * ($bb * $cc - $bc * $bc) - $ab * ($bv * $cc - $bc * $cv) + $ac * ($bv * $bc - $bb * $cv)) / $det;
        $y = ($aa * ($bv * $cc - $bc * $cv) - $av * ($ab * $cc - $bc * $ac) + $ac * ($ab * $cv - $bv * $ac)) / $det;
        $z = ($aa * ($bb * $cv - $bv * $bc) - $ab * ($ab * $cv - $bv * $ac) + $av * ($ab * $bc - $bb * $ac)) / $det;

        return [[$x, $y, $z], ($aa * $bb - $ab * $ab) / $det];
    }
}
