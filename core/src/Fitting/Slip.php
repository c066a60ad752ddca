<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Units\Length;

/**
 * A figure that looks like one of the usual slips: a decimal point, a unit, a wall too many, a joint miscounted. Said before the
 * figure is taken, because everything wrong by one factor looks right.
 */
final readonly class Slip
{
    /** Most usual first: what a single figure leaves open is taken for the more usual one. */
    private const FACTORS = [
        '10' => [10.0, 'a decimal point may have slipped'],
        '1000' => [1000.0, 'metres and millimetres may have been mixed up'],
        '304.8' => [304.8, 'feet and millimetres may have been mixed up'],
        '12' => [12.0, 'feet and inches may have been mixed up'],
        '25.4' => [25.4, 'inches and millimetres may have been mixed up'],
        '100' => [100.0, 'metres and centimetres may have been mixed up'],
    ];
    /** A slip is a factor to within this, or what the picks leave open. */
    private const FACTOR_PART = 0.06;
    /** |w| that a figure must disagree by before anything is made of it (odds of 1 : 1000). */
    private const DISAGREES_W = 3.29;
    /** |w| at least where another figure stands written over the same stretch, and the part of that by which the written one may be off */
    private const WRITTEN_W = [1.0, 0.5];
    /** Of what two swapped digits explain, no more than this part is left: the last two explain much by chance. */
    private const SWAPPED_PART = 0.06;
    /** Walls are no thinner and no thicker, mm: common practice, no source. */
    private const WALL_MM = [45.0, 900.0];
    private const USUAL_WALL_MM = [70.0, 500.0];

    private function __construct(public string $code, public string $message, public float $wouldBeMm)
    {
    }

    /**
     * A new figure against what the other statements say.
     *
     * @param float $readsMm what the length reads by the others
     * @param float $sigmaMm standard deviation of the difference
     * @param list<float> $wallsMm thicknesses of walls at its ends
     * @param float|null $unitMm what one joint or unit more adds, where the figure is a count
     * @param float|null $statedMm the same standard deviation with the picture's proportions taken for true: what disagrees by more than
     *                             they may be off is told by that
     * @param list<float> $swappedMm what the figure would say with two of its digits the other way round
     * @param string $whose what says so, as a sentence goes on with it
     */
    public static function against(
        float $figureMm,
        float $readsMm,
        float $sigmaMm,
        array $wallsMm = [],
        ?float $unitMm = null,
        ?float $statedMm = null,
        array $swappedMm = [],
        string $whose = 'the others',
    ): ?self {
        $difference = $figureMm - $readsMm;
        if (abs($difference) <= self::DISAGREES_W * $sigmaMm || $readsMm <= 0.0) {
            return null;
        }
        $open = self::FACTOR_PART + 2.0 * $sigmaMm / $readsMm;
        foreach (self::FACTORS as $name => [$factor, $reason]) {
            foreach ([$factor, 1.0 / $factor] as $by) {
                if (abs(log($figureMm / $readsMm / $by)) < $open) {
                    return new self(
                        'factor-'.$name,
                        \sprintf('%s have it at about %s: %s.', ucfirst($whose), self::told($readsMm), $reason),
                        $figureMm / $by,
                    );
                }
            }
        }
        $sigmaMm = $statedMm ?? $sigmaMm;
        if (null !== $unitMm && abs(abs($difference) - $unitMm) < max(0.25 * $unitMm, 2.0 * $sigmaMm) && $sigmaMm < 0.4 * $unitMm) {
            return new self(
                'count',
                \sprintf('One %s would agree with the others: the count may be off by one.', $difference > 0.0 ? 'less' : 'more'),
                $figureMm - ($difference > 0.0 ? $unitMm : -$unitMm),
            );
        }
        foreach ($wallsMm as $wall) {
            foreach ([2.0, 1.0] as $n) {
                if (abs(abs($difference) - $n * $wall) < max(2.0 * $sigmaMm, 0.1 * $wall) && 2.0 * $sigmaMm < 0.5 * $wall) {
                    return new self(
                        'wall',
                        \sprintf(
                            'It is %s than %s say by %s of %s: inside may have been read for outside.',
                            $difference > 0.0 ? 'longer' : 'shorter',
                            $whose,
                            2.0 === $n ? 'two walls' : 'one wall',
                            self::told($wall),
                        ),
                        $readsMm,
                    );
                }
            }
        }
        foreach ($swappedMm as $swapped) {
            if (abs($swapped - $readsMm) < min(self::DISAGREES_W * $sigmaMm, self::SWAPPED_PART * abs($difference))) {
                return new self(
                    'digits',
                    \sprintf('%s have it at about %s: two digits may have changed places.', ucfirst($whose), self::told($readsMm)),
                    $swapped,
                );
            }
        }

        return null;
    }

    /**
     * A figure against those that are written on the drawing, which nobody has stated.
     *
     * @param float $sigmaMm standard deviation of the figure and its picks
     * @param list<float> $wallsMm thicknesses of walls at its ends
     */
    public static function byWriting(
        float $figureMm,
        float $sigmaMm,
        PixelPoint $a,
        PixelPoint $b,
        WrittenSize $written,
        array $wallsMm = [],
    ): ?self {
        $readsMm = $written->mmBetween($a, $b);
        $sigmaMm = hypot($sigmaMm, $written->sigmaMm($a, $b));
        $off = abs($figureMm - $readsMm);
        $there = $written->over($a, $b);
        if (null !== $there && $off > self::WRITTEN_W[0] * $sigmaMm && abs($there->mm - $readsMm) < self::WRITTEN_W[1] * $off) {
            return new self('written', \sprintf('Over this stretch %s is written.', $there->text), $there->mm);
        }

        return $off <= self::DISAGREES_W * $sigmaMm
            ? null
            : self::against($figureMm, $readsMm, $sigmaMm, $wallsMm, whose: 'the figures written here') ?? new self(
                'written',
                \sprintf('The figures written here have it at about %s.', self::told($readsMm)),
                $readsMm,
            );
    }

    /**
     * Nothing else is stated yet: what the figure makes of the walls at its ends.
     *
     * @param float $wallMm thickness of a wall under the scale that the figure implies
     */
    public static function byWall(float $figureMm, float $wallMm): ?self
    {
        if ($wallMm >= self::WALL_MM[0] && $wallMm <= self::WALL_MM[1]) {
            return null;
        }
        foreach (self::FACTORS as $name => [$factor, $reason]) {
            $by = $wallMm > self::WALL_MM[1] ? $factor : 1.0 / $factor;
            if ($wallMm / $by >= self::USUAL_WALL_MM[0] && $wallMm / $by <= self::USUAL_WALL_MM[1]) {
                return new self(
                    'factor-'.$name,
                    \sprintf('It makes the wall here %s thick: %s.', self::told($wallMm), $reason),
                    $figureMm / $by,
                );
            }
        }

        return new self('wall-size', \sprintf('It makes the wall here %s thick.', self::told($wallMm)), $figureMm);
    }

    /** Nothing else is stated, and the page has a scan resolution: what scale the figure implies. */
    public static function byScale(float $figureMm, float $scale): ?self
    {
        if ($scale >= 4.0 && $scale <= 6000.0) {
            return null;
        }
        foreach (self::FACTORS as $name => [$factor, $reason]) {
            $by = $scale > 6000.0 ? $factor : 1.0 / $factor;
            if ($scale / $by >= 10.0 && $scale / $by <= 1250.0) {
                return new self(
                    'factor-'.$name,
                    \sprintf('It makes the drawing 1 : %s: %s.', number_format($scale, $scale < 10.0 ? 1 : 0, '.', ' '), $reason),
                    $figureMm / $by,
                );
            }
        }

        return new self('scale-size', \sprintf('It makes the drawing 1 : %.1f.', $scale), $figureMm);
    }

    private static function told(float $mm): string
    {
        return Length::told($mm, $mm < 100.0 ? 1 : 0);
    }
}
