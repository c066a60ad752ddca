<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

use Plinth\Core\Numerics\Median;

/**
 * The mapping on which most figures agree with what they stand beside, and which reading and which span of each one that is.
 *
 * A vote finds the scale, then least squares with the readings and spans chosen anew each round find the rest: what a scanner, a copier
 * and a camera usually do is known beforehand.
 *
 * @internal
 */
final readonly class SizeByFigures
{
    /** mm: figures of buildings */
    private const BOUNDS_MM = [50.0, 300_000.0];
    /** mm: figures of buildings are multiples of this, common practice, no source; and what being none costs at most, a logarithm */
    private const ROUND_MM = 5.0;
    private const ODDEST = -4.0;
    /** how much a figure speaks for its way to write: one with a point, comma or feet, a short one, metres to the millimetre; by trial */
    private const TELLING = 1.25;
    private const SHORT = 0.5;
    private const RARE = 0.6;
    /** logarithm by which a reading may be less likely than the best to speak for four digits */
    private const CLOSE = 1.5;
    /** part of the commonest way to write that another one shows at least to be tried */
    private const ALSO = 0.3;
    /** standard deviations of g and h of a mapping: pages are scanned flat, or photographed; by trial */
    private const FLAT = 0.004;
    private const PHOTOGRAPHED = 0.2;
    /** by how much more a photograph has to explain, as a logarithm: odds of 1 : 20 for each of two figures */
    private const CLEARLY = 6.0;
    /** part of a length by which figures may be off, round by round */
    private const ROUNDS = [0.05, 0.035, 0.025, 0.018, 0.012, 0.01, 0.008, 0.008];
    /** logarithm of likelihood that a way has at least to be chosen in a round */
    private const CHOSEN = -5.0;
    /** standard deviations within which a figure agrees */
    private const AGREES = 3.0;
    /** part of a length that drawings keep to, and what is known of where marks are, px */
    public const DRAWN = 0.0022;
    private const MARK_PX = [0.7, 2.5];
    /** logarithms of likelihood that an accepted figure has at least, of its reading, and with its span */
    private const LEAST = -4.5;
    /** characters that tell something: short ones agree by chance */
    private const LETTERS = 3;

    /**
     * @param list<array{Way, float, bool|null}> $agreed the likeliest first, by how many standard deviations each is off the others, and
     *                                                   whether the sums that it is part of add up; null where it is part of none
     * @param float $px standard deviation of a mark, px of the ink
     * @param float $votes how much of what is written votes for it
     * @param bool $isPhotographed whether it explains clearly more with perspective
     */
    private function __construct(
        public FigureMapping $mapping,
        public array $agreed,
        public float $px,
        private float $votes,
        public bool $isPhotographed,
    ) {
    }

    /**
     * @param list<FigureCandidate> $figures
     * @param float $turn of the drawing's grid, radians with y down
     * @param callable(): void $goesOn asked now and then
     *
     * @return self|null null where no two figures agree
     */
    public static function of(array $figures, float $turn, int $width, int $height, callable $goesOn): ?self
    {
        $best = null;
        $most = -\INF;
        $high = [] === $figures ? 0.0 : Median::of(array_map(static fn (FigureCandidate $f): float => $f->row->height(), $figures));
        $shown = array_map(static fn (array $kinds): float => self::shown($figures, $kinds), FigureKind::together());
        $mostShown = max([1e-9, ...$shown]);
        foreach (FigureKind::together() as $k => $kinds) {
            if ($shown[$k] < self::ALSO * $mostShown) {
                continue;
            }
            $fit = self::fitted(self::ways($figures, $kinds, $turn, $width, $height), $high, (float) max($width, $height), $goesOn);
            if (null === $fit) {
                continue;
            }
            $worth = $fit->votes * (0.5 + 0.5 * $shown[$k] / $mostShown) * ScaleVote::likelyHigh($high * exp($fit->mapping->p[0]));
            if ($worth > $most) {
                [$most, $best] = [$worth, $fit];
            }
        }

        return $best;
    }

    /**
     * How much of what is written is written in this way.
     *
     * @param list<FigureCandidate> $figures
     * @param list<FigureKind> $kinds
     */
    private static function shown(array $figures, array $kinds): float
    {
        $sum = 0.0;
        foreach ($figures as $figure) {
            $best = $figure->readings[0]->likely;
            $one = 0.0;
            foreach ($figure->readings as $reading) {
                if (!\in_array($reading->kind, $kinds, true)) {
                    continue;
                }
                $one = max($one, exp(max(-8.0, $reading->likely)) * match (true) {
                    // Four digits and more are as good as any other way to write; three may be anything.
                    FigureKind::Millimetres === $reading->kind && 1 === \count($kinds) => self::isLong($reading, $best) ? 1.0 : self::SHORT,
                    FigureKind::MetresToMillimetre === $reading->kind => self::RARE,
                    FigureKind::Millimetres === $reading->kind => \strlen($reading->text) <= self::LETTERS ? self::SHORT : 0.0,
                    default => self::TELLING,
                });
            }
            $sum += $one * exp(max(-8.0, $figure->spans[0]->likely ?? -8.0));
        }

        return $sum;
    }

    private static function isLong(Reading $reading, float $best): bool
    {
        return \strlen($reading->text) > self::LETTERS && $reading->likely > $best - self::CLOSE;
    }

    /**
     * How much less likely it is that a figure of this drawing is no round one: most drawings have round ones alone.
     *
     * @param list<FigureCandidate> $figures
     * @param list<FigureKind> $kinds
     *
     * @return float a logarithm
     */
    private static function odd(array $figures, array $kinds): float
    {
        [$round, $all] = [1.0, 2.0];
        foreach ($figures as $figure) {
            $best = $figure->readings[0];
            if (\in_array($best->kind, $kinds, true) && \strlen($best->text) > self::LETTERS && [] !== $figure->spans) {
                $round += 0.0 === fmod($best->mm, self::ROUND_MM) ? 1.0 : 0.0;
                ++$all;
            }
        }

        return min(0.0, max(self::ODDEST, log(($all - $round) / (self::ROUND_MM - 1.0) / $round)));
    }

    /**
     * @param list<FigureCandidate> $figures
     * @param list<FigureKind> $kinds
     *
     * @return list<Way>
     */
    private static function ways(array $figures, array $kinds, float $turn, int $width, int $height): array
    {
        $ways = [];
        $odd = self::odd($figures, $kinds);
        foreach ($figures as $i => $figure) {
            $ends = array_map(static fn (Span $span): array => self::ends($span, $turn, $width, $height), $figure->spans);
            foreach ($figure->readings as $reading) {
                if (
                    !\in_array($reading->kind, $kinds, true)
                    || (FigureKind::Millimetres === $reading->kind && \count($kinds) > 1 && \strlen($reading->text) > self::LETTERS)
                    || $reading->mm < self::BOUNDS_MM[0] || $reading->mm > self::BOUNDS_MM[1]
                ) {
                    continue;
                }
                $isOdd = FigureKind::FeetInches !== $reading->kind && fmod($reading->mm, self::ROUND_MM) > 0.0;
                $likely = $reading->likely + ($isOdd ? $odd : 0.0);
                foreach ($figure->spans as $k => $span) {
                    $ways[] = new Way($i, $figure, $reading, $span, $ends[$k], $likely + $span->likely);
                }
            }
        }

        return $ways;
    }

    /**
     * Ends of a span in the frame of the mapping.
     *
     * @return array{float, float, float, float}
     */
    private static function ends(Span $span, float $turn, int $width, int $height): array
    {
        $side = max($width, $height);
        [$c, $s] = [cos($turn) / $side, sin($turn) / $side];
        [$x1, $y1] = [$span->a[0] - $width / 2.0, $span->a[1] - $height / 2.0];
        [$x2, $y2] = [$span->b[0] - $width / 2.0, $span->b[1] - $height / 2.0];

        return [$x1 * $c + $y1 * $s, $y1 * $c - $x1 * $s, $x2 * $c + $y2 * $s, $y2 * $c - $x2 * $s];
    }

    /**
     * @param list<Way> $ways
     * @param callable(): void $goesOn
     */
    private static function fitted(array $ways, float $high, float $side, callable $goesOn): ?self
    {
        $goesOn();
        $vote = ScaleVote::of($ways, $high);
        $goesOn();
        if (null === $vote) {
            return null;
        }
        $best = null;
        $most = -\INF;
        // As scanned flat, and as photographed, which has to explain clearly more.
        foreach ([
            [new FigureMapping([$vote->scale, $vote->stretch, 0.0, 0.0, 0.0], $side), self::FLAT],
            [new FigureMapping([$vote->scale, 0.0, 0.0, 0.0, 0.0], $side), self::PHOTOGRAPHED],
            [$vote->leaning($ways, $side), self::PHOTOGRAPHED],
        ] as [$mapping, $leans]) {
            $chosen = [];
            foreach (self::ROUNDS as $tolerance) {
                $goesOn();
                $chosen = self::chosen($ways, $mapping, $tolerance);
                if (\count($chosen) < 2) {
                    continue 2;
                }
                $mapping = $mapping->adjustedTo($chosen, $leans);
            }
            $isPhotographed = self::FLAT !== $leans;
            $explains = self::explained($ways, $mapping) - ($isPhotographed ? self::CLEARLY : 0.0);
            if ($explains > $most) {
                [$most, $best] = [$explains, [$mapping, $chosen, $isPhotographed]];
            }
        }
        if (null === $best) {
            return null;
        }
        [$mapping, $chosen, $isPhotographed] = $best;
        $off = array_map(static fn (Way $way): float => abs($mapping->off($way)) * $way->long, array_values($chosen));
        $px = min(self::MARK_PX[1], max(self::MARK_PX[0], 1.48 * Median::of($off)));

        return new self($mapping, self::agreed($ways, $mapping, $px), $px, $vote->votes, $isPhotographed);
    }

    /**
     * How much of what is written the mapping explains: for each figure by how much its likeliest way is likelier than to be wrong.
     *
     * @param list<Way> $ways
     */
    private static function explained(array $ways, FigureMapping $mapping): float
    {
        $most = [];
        foreach ($ways as $way) {
            $z = $mapping->off($way) / hypot(self::DRAWN, 1.0 / $way->long);
            $most[$way->of] = max($most[$way->of] ?? 0.0, $way->likely - 0.5 * $z * $z - self::LEAST);
        }

        return array_sum($most);
    }

    /**
     * The likeliest way of each figure under the present mapping.
     *
     * @param list<Way> $ways
     *
     * @return array<int, Way> by figure
     */
    private static function chosen(array $ways, FigureMapping $mapping, float $tolerance): array
    {
        $chosen = [];
        $most = [];
        foreach ($ways as $way) {
            $z = $mapping->off($way) / hypot(0.5 * $tolerance, 1.0 / $way->long);
            $score = $way->likely - 0.5 * $z * $z;
            if ($score > ($most[$way->of] ?? self::CHOSEN)) {
                $most[$way->of] = $score;
                $chosen[$way->of] = $way;
            }
        }

        return $chosen;
    }

    /**
     * @param list<Way> $ways
     *
     * @return list<array{Way, float, bool|null}>
     */
    private static function agreed(array $ways, FigureMapping $mapping, float $px): array
    {
        $best = [];
        $off = static fn (Way $way): float => $mapping->off($way) / hypot(self::DRAWN, $px / $way->long);
        foreach ($ways as $way) {
            $z = $off($way);
            if (abs($z) > self::AGREES || \strlen($way->reading->text) < self::LETTERS || $way->reading->likely <= self::LEAST) {
                continue;
            }
            $score = $way->likely - 0.5 * $z * $z;
            if ($score > ($best[$way->of][2] ?? self::LEAST)) {
                $best[$way->of] = [$way, $z, $score];
            }
        }
        usort($best, static fn (array $a, array $b): int => $b[2] <=> $a[2]);
        $kept = [];
        foreach ($best as [$way, $z]) {
            if ([] === array_filter($kept, static fn (array $other): bool => $way->isSameAs($other[0]))) {
                $kept[] = [$way, $z];
            }
        }

        return ChainSums::checked($kept, $mapping, $off);
    }
}
