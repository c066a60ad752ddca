<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

/**
 * Which of a drawing's lines are its walls': they are drawn with the wider pen (ISO 128 tells wide lines from narrow ones, two to one).
 *
 * @internal
 */
final readonly class Pens
{
    /** wide to narrow, at least */
    private const APART = 1.3;
    /** part of all line length that is drawn with the wide pen, at least */
    private const LEAST_PART = 0.06;
    /** bins to a factor of e */
    private const BINS = 25.0;
    /** A line along hatching shows so much of its width: the strokes hide the rest. */
    private const RIM = 0.8;
    /** Solid ink this much wider than the widest pen is a wall. */
    private const SOLID_OVER_PEN = 1.5;

    /** @param float $wide from this on a line is a wall's, mm; 0 where one pen drew everything */
    private function __construct(public float $wide, private float $widest)
    {
    }

    /** @param list<Strip> $strips */
    public static function of(array $strips): self
    {
        $weights = [];
        foreach ($strips as $strip) {
            if (null !== $strip->pen && $strip->pen > 0.0 && $strip->length() >= 300.0) {
                $bin = (int) floor(log($strip->pen) * self::BINS);
                $weights[$bin] = ($weights[$bin] ?? 0.0) + $strip->length();
            }
        }
        if ([] === $weights) {
            return new self(0.0, 0.0);
        }
        ksort($weights);
        // Otsu 1979, from memory: the cut with the greatest variance between the two classes.
        $all = array_sum($weights);
        $sum = array_sum(array_map(static fn (int $bin, float $w): float => $bin * $w, array_keys($weights), $weights));
        [$below, $belowSum, $best, $cut] = [0.0, 0.0, 0.0, null];
        foreach ($weights as $bin => $w) {
            $below += $w;
            $belowSum += $bin * $w;
            if ($below >= $all) {
                break;
            }
            [$low, $high] = [$belowSum / $below, ($sum - $belowSum) / ($all - $below)];
            $between = $below * ($all - $below) * ($high - $low) ** 2;
            if ($between > $best && ($all - $below) / $all >= self::LEAST_PART) {
                [$best, $cut] = [$between, [$bin, $low, $high]];
            }
        }
        $widest = exp((array_key_last($weights) + 1) / self::BINS);
        $reached = 0.0;
        foreach ($weights as $bin => $w) {
            $reached += $w;
            if ($reached >= 0.9 * $all) {
                $widest = exp(($bin + 1) / self::BINS);
                break;
            }
        }
        if (null === $cut || exp(($cut[2] - $cut[1]) / self::BINS) < self::APART) {
            return new self(0.0, $widest);
        }

        return new self(exp(($cut[1] + $cut[2] + 1.0) / 2.0 / self::BINS), max($widest, exp($cut[2] / self::BINS)));
    }

    /** Whether a stretch is drawn as this drawing draws its walls. */
    public function mayBeWall(Strip $strip): bool
    {
        return Filling::Solid === $strip->filling
            ? $strip->thickness > self::SOLID_OVER_PEN * $this->widest
            : (null === $strip->pen || $strip->pen >= $this->wide) && (null === $strip->rim || $strip->rim >= self::RIM * $this->wide);
    }

    /** The logarithm of how wide a stretch's lines are for the wide pen, or the widest of one; 0 where a filling hides them. */
    public function width(Strip $strip): float
    {
        $pen = $strip->pen ?? $strip->rim ?? 0.0;
        $wide = $this->wide > 0.0 ? $this->wide : $this->widest;

        return $pen > 0.0 && $wide > 0.0 ? log($pen / $wide) : 0.0;
    }
}
