<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

/**
 * The scale that most figures vote for, each for the readings and spans that it may have.
 *
 * @internal
 */
final readonly class ScaleVote
{
    /** mm in the building that lettering is high: surely, and perhaps; and how likely it is to be neither; by trial */
    private const HEIGHT_MM = [[70.0, 450.0], [45.0, 700.0]];
    private const UNLIKELY = 0.1;
    /** likelihood from which a way names a scale to vote on, and from which it votes */
    private const NAMES = 0.02;
    private const VOTES = 0.002;
    /** scales are tried so close to each other, as a logarithm, and loosely every so many */
    private const STEP = 0.002;
    private const LOOSELY = 6;
    /** ways within so much of a scale are looked at, as a logarithm */
    private const NEAR = 0.1;
    /** px of a span at which it votes with half its weight: short ones agree with anything; and what is known of its length */
    private const HALF_PX = 125.0;
    private const MARK_PX = 1.1;
    /** part of a length that figures agree to on a flat page, where the page leans too, and where it may lean in any way; by trial */
    private const AGREE = 0.0035;
    private const AGREE_LEANING = 0.008;
    private const AGREE_LOOSELY = 0.0185;
    /** A vote that allows for perspective counts less: more agrees with it by chance. */
    private const LOOSE_COUNTS = 0.72;
    /** by how much the two axes differ at most and usually, and what it costs to say that they do, in votes */
    private const STRETCH = [0.035, 0.02, 0.25];
    private const STRETCH_STEP = 0.005;
    /** Part of the strongest vote that does not count: one figure alone agrees with anything. */
    private const ALONE = 0.6;
    /** characters of a figure that tell as much as any */
    private const LETTERS = 4.0;
    /** g and h that photographs of drawings reach, by trial, and steps in which they are tried */
    private const LEANS = 0.16;
    private const LEANS_STEP = 0.04;
    /** how far the scale in the middle may be off the vote on such a page, and steps of it, as logarithms */
    private const OFF = 0.1;
    private const OFF_STEP = 0.01;

    /**
     * @param float $votes for it
     * @param float $scale logarithm of mm to a px of the ink
     * @param float $stretch by how much that is more along the first axis
     */
    private function __construct(public float $votes, public float $scale, public float $stretch)
    {
    }

    /**
     * @param list<Way> $ways
     * @param float $high px that lettering is high
     */
    public static function of(array $ways, float $high): ?self
    {
        $votes = [];
        $scales = [];
        foreach ($ways as $way) {
            $weight = exp(max(-9.0, $way->likely)) * min(1.0, \strlen($way->reading->text) / self::LETTERS);
            $scale = $way->mm - log($way->long);
            if ($weight > self::NAMES) {
                $scales[(int) round($scale / self::STEP)] = true;
            }
            if ($weight > self::VOTES) {
                $votes[] = self::vote($way, $scale, $weight);
            }
        }
        usort($votes, static fn (array $a, array $b): int => $a[1] <=> $b[1]);
        ksort($scales);
        $best = null;
        $first = 0;
        foreach (array_keys($scales) as $k => $number) {
            $scale = self::STEP * $number;
            while (isset($votes[$first]) && $votes[$first][1] < $scale - self::NEAR) {
                ++$first;
            }
            $near = [];
            for ($i = $first; isset($votes[$i]) && $votes[$i][1] < $scale + self::NEAR; ++$i) {
                $near[] = $votes[$i];
            }
            $likely = self::likelyHigh($high * exp($scale));
            for ($d = -self::STRETCH[0]; $d <= self::STRETCH[0] + 1e-9; $d += self::STRETCH_STEP) {
                $sum = $likely * self::sum($near, $scale, $d, self::AGREE) * exp(-0.5 * ($d / self::STRETCH[1]) ** 2)
                    - (abs($d) > 1e-9 ? self::STRETCH[2] : 0.0);
                $best = null === $best || $sum > $best->votes ? new self($sum, $scale, $d) : $best;
            }
            if (0 === $k % self::LOOSELY) {
                $sum = $likely * self::LOOSE_COUNTS * self::sum($near, $scale, 0.0, self::AGREE_LOOSELY);
                $best = null === $best || $sum > $best->votes ? new self($sum, $scale, 0.0) : $best;
            }
        }

        return $best;
    }

    /**
     * The scale near this one and the lean that most figures vote for, as of a photograph.
     *
     * @param list<Way> $ways
     */
    public function leaning(array $ways, float $side): FigureMapping
    {
        $best = new FigureMapping([$this->scale, 0.0, 0.0, 0.0, 0.0], $side);
        $most = -\INF;
        for ($g = -self::LEANS; $g <= self::LEANS + 1e-9; $g += self::LEANS_STEP) {
            for ($h = -self::LEANS; $h <= self::LEANS + 1e-9; $h += self::LEANS_STEP) {
                $flat = new FigureMapping([0.0, 0.0, 0.0, $g, $h], $side);
                $votes = [];
                foreach ($ways as $way) {
                    $scale = -$flat->off($way);
                    $weight = exp($way->likely);
                    if (abs($scale - $this->scale) < 1.5 * self::OFF && $weight > self::VOTES) {
                        $votes[] = self::vote($way, $scale, $weight);
                    }
                }
                for ($off = -self::OFF; $off <= self::OFF + 1e-9; $off += self::OFF_STEP) {
                    $sum = self::sum($votes, $this->scale + $off, 0.0, self::AGREE_LEANING);
                    if ($sum > $most) {
                        [$most, $best] = [$sum, new FigureMapping([$this->scale + $off, 0.0, 0.0, $g, $h], $side)];
                    }
                }
            }
        }

        return $best;
    }

    /** How likely it is that lettering is so high in the building, mm. */
    public static function likelyHigh(float $mm): float
    {
        return match (true) {
            $mm >= self::HEIGHT_MM[0][0] && $mm <= self::HEIGHT_MM[0][1] => 1.0,
            $mm >= self::HEIGHT_MM[1][0] && $mm <= self::HEIGHT_MM[1][1] => 0.5,
            default => self::UNLIKELY,
        };
    }

    /** @return array{int, float, float, float, float} figure, scale, weight, what is known of the scale, half an axis */
    private static function vote(Way $way, float $scale, float $weight): array
    {
        return [
            $way->of, $scale, $weight / (1.0 + self::HALF_PX / $way->long), self::MARK_PX / $way->long,
            $way->figure->isUpright ? -0.5 : 0.5,
        ];
    }

    /** @param list<array{int, float, float, float, float}> $near */
    private static function sum(array $near, float $scale, float $d, float $sigma): float
    {
        $best = [];
        foreach ($near as [$figure, $own, $weight, $coarse, $axis]) {
            $z = ($own - $scale - $d * $axis) / ($sigma + $coarse);
            $vote = $weight * exp(-0.5 * $z * $z);
            if ($vote > ($best[$figure] ?? 0.0)) {
                $best[$figure] = $vote;
            }
        }

        return array_sum($best) - self::ALONE * max([0.0, ...$best]);
    }
}
