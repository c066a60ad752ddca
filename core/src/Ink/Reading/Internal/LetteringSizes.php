<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

use Plinth\Core\Ink\Page\Blob;

/**
 * Heights that the lettering of a page has. What has no source was tried on simulated sheets (bench figures).
 *
 * @internal
 */
final class LetteringSizes
{
    /** px that lettering is high, and steps in which that is told */
    private const SIZES = [7.0, 70.0];
    private const STEP = 0.5;
    /** letters of one height differ by this part of it, and by so many px */
    private const ALIKE = [0.16, 0.8];
    /** heights from one letter to the next at most */
    private const BESIDE = 1.5;
    /** letters beside one of like height from which more say no more */
    private const MOST_ALIKE = 3;
    /** a letter speaks for heights that differ by this part, and by so many px, as a standard deviation */
    private const SPREAD = [0.06, 0.3];
    /** Small pieces are many by chance: a height counts as its own power to this less. */
    private const SMALLER = 0.3;
    /** a further height counts that has this part of the commonest one's pieces, and differs by so much, as a logarithm */
    private const ALSO = 0.25;
    private const APART = 0.22;
    /** times that one height may be another for letters of both to be found together */
    private const TOGETHER = 1.45;

    /**
     * Heights that lettering has: pieces of like size side by side.
     *
     * @param list<Blob> $blobs
     *
     * @return list<float> px, the commonest first, two at most
     */
    public static function of(array $blobs): array
    {
        $found = [];
        $cells = [];
        $side = self::BESIDE * self::SIZES[1];
        foreach ($blobs as $blob) {
            $size = max($blob->box->width, $blob->box->height);
            if ($size < self::SIZES[0] || $size > self::SIZES[1]) {
                continue;
            }
            $at = $blob->box->centre();
            $cells[(int) ($at->y / $side)][(int) ($at->x / $side)][] = \count($found);
            $found[] = [$size, $at->x, $at->y];
        }
        $weights = [];
        foreach ($found as [$size, $x, $y]) {
            $like = -1;
            for ($j = (int) ($y / $side) - 1; $j <= (int) ($y / $side) + 1; ++$j) {
                for ($i = (int) ($x / $side) - 1; $i <= (int) ($x / $side) + 1; ++$i) {
                    foreach ($cells[$j][$i] ?? [] as $other) {
                        [$theirs, $u, $v] = $found[$other];
                        $isAlike = abs($theirs - $size) < self::ALIKE[0] * $size + self::ALIKE[1];
                        $like += $isAlike && hypot($u - $x, $v - $y) < self::BESIDE * $size ? 1 : 0;
                    }
                }
            }
            $weights[] = min($like, self::MOST_ALIKE);
        }
        $density = [];
        for ($size = self::SIZES[0]; $size <= self::SIZES[1]; $size += self::STEP) {
            $sum = 0.0;
            foreach ($found as $k => [$own]) {
                if ($weights[$k] > 0 && abs($own - $size) < 5.0 * self::spread($size)) {
                    $sum += $weights[$k] * exp(-0.5 * (($own - $size) / self::spread($size)) ** 2);
                }
            }
            $density[(string) $size] = $sum / $size ** self::SMALLER;
        }
        $most = max([0.0, ...array_values($density)]);
        $sizes = [];
        while (\count($sizes) < 2) {
            arsort($density);
            $size = (float) array_key_first($density);
            if (($density[(string) $size] ?? 0.0) <= self::ALSO * $most) {
                break;
            }
            $sizes[] = $size;
            foreach (array_keys($density) as $other) {
                if (abs(log((float) $other / $size)) < self::APART) {
                    $density[$other] = 0.0;
                }
            }
        }

        // Letters of both are taken together where they are so near to each other.
        return 2 === \count($sizes) && abs(log($sizes[0] / $sizes[1])) < log(self::TOGETHER) ? [sqrt($sizes[0] * $sizes[1])] : $sizes;
    }

    private static function spread(float $size): float
    {
        return self::SPREAD[0] * $size + self::SPREAD[1];
    }
}
