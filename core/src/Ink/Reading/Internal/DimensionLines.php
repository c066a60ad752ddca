<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

/**
 * Dimension lines beside a row of lettering, and the pieces of them that the lettering stands in the middle of.
 *
 * Everything is measured in the height S of the lettering: it is drawn in proportion to marks and lines. What has no source was tried on
 * simulated sheets (bench figures).
 *
 * @internal
 */
final class DimensionLines
{
    /** S: how far lines are looked for, above and below the middle of the lettering */
    private const REACH = [-2.2, 3.4];
    /** degrees by which a line may run off the lettering */
    private const LEANS = [0.0, -0.8, 0.8, -1.6, 1.6, -2.8, 2.8, -4.2, 4.2];
    /** part of a line beside the lettering that shows */
    private const SHOWS = 0.35;
    /** of 255: ink of a line, as fine ones are drawn */
    private const INK = 76;
    /** px of the ink between two looks at a line */
    public const STEP = 1.0;
    /** S: a line may be broken by so much, where a figure or a crossing hides it */
    private const BROKEN = 1.7;
    /** S: a line's middle is looked for so far to either side of where it is expected */
    private const BAND = 0.14;
    /** part of that band that is inked where something else than a line is there */
    private const CROSSED = 0.6;
    /** how fast a line that is followed is led back to its middle; and its direction, at first, radians a step at most */
    private const LED = 0.35;
    private const TURNED = [0.03, 0.004];
    /** S: lines are no nearer to each other */
    private const LINES_APART = 0.12;
    /** steps of a line that say something */
    private const LEAST_STEPS = 8;
    /** how well a line fits that runs so far below the middle of the lettering (S): below it, lifted off it, above it, and nearly so */
    private const PLACES = [[0.8, 1.45, 1.0], [1.9, 3.0, 0.8], [-1.6, -0.8, 0.55], [0.6, 1.9, 0.3]];
    /** how far lettering stands off the middle of what it measures: S, and part of its length; so many times that at most */
    private const CENTRED = [0.28, 0.012];
    private const MOST_OFF = 2.2;
    /** S: pieces are no shorter */
    private const SHORTEST = 0.25;
    /** logarithms: what each mark that is passed over costs, and an end that is no mark */
    private const PASSED = 0.55;
    private const UNMARKED = 0.5;
    /** What is no wider than its span stands near the line, what is wider is lifted off it: how wide, how far (S), what else costs. */
    private const TOO_WIDE = [1.02, 1.6, 0.8];
    private const TOO_NARROW = [0.8, 1.9, 1.2];
    /** marks to either side that are tried */
    private const TRIED = 5;
    private const MOST_SPANS = 6;

    /**
     * @param LetteringInk $grown the same as far as lines hold together in it
     * @param bool $isTurned the lettering is read against its direction
     * @param float $size usual height of lettering, px
     *
     * @return list<Span> the likeliest first
     */
    public static function spans(LetteringInk $ink, LetteringInk $grown, Lettering $row, bool $isTurned, float $size): array
    {
        $s = max($row->height(), 0.75 * $size);
        [$x, $y] = $row->middle();
        $along = $row->runs() + ($isTurned ? \M_PI : 0.0);
        $spans = [];
        foreach (self::lines($grown, $x, $y, $along, $s, $row->length()) as [$off, $lean]) {
            $worth = self::worth($off / $s);
            if (null === $worth) {
                continue;
            }
            $lineX = $x - sin($along) * $off;
            $lineY = $y + cos($along) * $off;
            $points = [
                ...array_reverse(\array_slice(self::follow($grown, $lineX, $lineY, $along + $lean, $s, -1.0), 1)),
                ...self::follow($grown, $lineX, $lineY, $along + $lean, $s, 1.0),
            ];
            if (\count($points) < self::LEAST_STEPS) {
                continue;
            }
            $middle = self::nearest($points, $lineX, $lineY);
            $marks = DimensionMarks::on($ink, $points, $s);
            array_push($spans, ...self::between($marks, $points, $middle, $row->length(), $s, $off / $s, $worth));
        }
        usort($spans, static fn (Span $a, Span $b): int => $b->likely <=> $a->likely);

        return \array_slice($spans, 0, self::MOST_SPANS);
    }

    /** How well a line fits that runs so far below the lettering's middle (S): below it, further below it, above it. */
    private static function worth(float $below): ?float
    {
        foreach (self::PLACES as [$from, $to, $worth]) {
            if ($below >= $from && $below <= $to) {
                return $worth;
            }
        }

        return null;
    }

    /**
     * Lines that run with the lettering.
     *
     * @return list<array{float, float}> px below its middle, and by how much they lean, radians
     */
    private static function lines(LetteringInk $ink, float $x, float $y, float $along, float $s, float $length): array
    {
        $half = max($length / 2.0 + 1.4 * $s, 3.0 * $s);
        [$c, $n] = [cos($along), sin($along)];
        $stepU = max(self::STEP, $s / 8.0);
        $stepV = max(1.0, $s / 20.0);
        $from = (int) floor(self::REACH[0] * $s / $stepV);
        $to = (int) ceil(self::REACH[1] * $s / $stepV);
        $best = array_fill(0, $to - $from + 1, [0.0, 0.0]);
        $part = max(1, (int) ceil(2.0 * $half / 3.0 / $stepU));
        foreach (self::LEANS as $lean) {
            $slope = tan(deg2rad($lean));
            $shown = [];
            for ($i = $from - 1; $i <= $to + 1; ++$i) {
                $row = '';
                for ($u = -$half; $u <= $half; $u += $stepU) {
                    $w = $i * $stepV + $slope * $u;
                    $row .= $ink->near($x + $u * $c - $w * $n, $y + $u * $n + $w * $c) > self::INK ? '1' : '0';
                }
                $shown[] = $row;
            }
            for ($i = 1; $i < \count($shown) - 1; ++$i) {
                // A line a pixel beside counts too: hands tremble.
                $row = $shown[$i - 1] | $shown[$i] | $shown[$i + 1];
                $all = substr_count($row, '1') / \strlen($row);
                if (0.5 + 0.5 * $all <= self::SHOWS) {
                    continue;
                }
                $least = 1.0;
                foreach (str_split($row, $part) as $piece) {
                    $least = min($least, substr_count($piece, '1') / \strlen($piece));
                }
                $score = 0.5 * $least + 0.5 * $all;
                if ($score > $best[$i - 1][0]) {
                    $best[$i - 1] = [$score, deg2rad($lean)];
                }
            }
        }
        $found = [];
        $reach = max(2, (int) (self::LINES_APART * $s / $stepV));
        $last = -\INF;
        for ($i = 0; $i < \count($best); ++$i) {
            if ($best[$i][0] <= self::SHOWS || $i - $last <= $reach) {
                continue;
            }
            $near = \array_slice($best, max(0, $i - $reach), 2 * $reach + 1);
            if ($best[$i][0] < max([0.0, ...array_column($near, 0)]) - 1e-9) {
                continue;
            }
            $j = $i;
            while (isset($best[$j + 1]) && $best[$j + 1][0] >= $best[$i][0] - 1e-6) {
                ++$j;
            }
            $found[] = [($from + intdiv($i + $j, 2)) * $stepV, $best[intdiv($i + $j, 2)][1]];
            $last = $j;
        }

        return $found;
    }

    /**
     * The line's middle, step by step, until it breaks off.
     *
     * @return non-empty-list<array{float, float, float}> x, y and direction
     */
    private static function follow(LetteringInk $ink, float $x, float $y, float $along, float $s, float $way): array
    {
        $points = [[$x, $y, $along]];
        $reach = max(2.0, self::BAND * $s);
        $lost = 0.0;
        $seen = 1;
        while ($lost <= self::BROKEN * $s) {
            [$c, $n] = [cos($along), sin($along)];
            $x += $way * self::STEP * $c;
            $y += $way * self::STEP * $n;
            if ($x < 1.0 || $y < 1.0 || $x > $ink->width - 2.0 || $y > $ink->height - 2.0) {
                break;
            }
            [$sum, $moment, $most] = [0.0, 0.0, 0];
            for ($v = -$reach; $v <= $reach; $v += 1.0) {
                $value = $ink->near($x - $n * $v, $y + $c * $v);
                $most = max($most, $value);
                $sum += $value;
                $moment += $value * $v;
            }
            if ($most > self::INK) {
                $lost = 0.0;
                // In a crossing or a wall there is ink everywhere, which says nothing of where the line is.
                if ($sum < self::CROSSED * $most * (2.0 * $reach + 1.0)) {
                    $off = $moment / max(1.0, $sum);
                    $x -= self::LED * $off * $n;
                    $y += self::LED * $off * $c;
                    $turn = self::TURNED[0] * $off / $reach / max(1.0, sqrt($seen) / 3.0);
                    $along += $way * max(-self::TURNED[1], min(self::TURNED[1], $turn));
                }
                ++$seen;
            } else {
                $lost += self::STEP;
            }
            $points[] = [$x, $y, $along];
        }
        $over = (int) round($lost / self::STEP);

        return \array_slice($points, 0, max(1, \count($points) - $over));
    }

    /** @param non-empty-list<array{float, float, float}> $points */
    private static function nearest(array $points, float $x, float $y): int
    {
        $best = 0;
        foreach ($points as $i => $point) {
            if (hypot($point[0] - $x, $point[1] - $y) < hypot($points[$best][0] - $x, $points[$best][1] - $y)) {
                $best = $i;
            }
        }

        return $best;
    }

    /**
     * @param list<array{float, bool}> $marks
     * @param non-empty-list<array{float, float, float}> $points
     *
     * @return list<Span>
     */
    private static function between(array $marks, array $points, int $middle, float $length, float $s, float $below, float $worth): array
    {
        $slack = 0.02 * $length / 2.0 / self::STEP;
        $left = array_reverse(array_values(array_filter($marks, static fn (array $m): bool => $m[0] < $middle - $slack)));
        $right = array_values(array_filter($marks, static fn (array $m): bool => $m[0] > $middle + $slack));
        $spans = [];
        foreach (\array_slice($left, 0, self::TRIED) as $i => [$from, $isEnd]) {
            foreach (\array_slice($right, 0, self::TRIED) as $j => [$to, $isOtherEnd]) {
                $a = self::place($points, $from);
                $b = self::place($points, $to);
                $long = hypot($b[0] - $a[0], $b[1] - $a[1]);
                $off = abs(($from + $to) / 2.0 - $middle) * self::STEP;
                $most = self::CENTRED[0] * $s + self::CENTRED[1] * $long;
                if ($long < self::SHORTEST * $s || $off > self::MOST_OFF * $most) {
                    continue;
                }
                $likely = log($worth) - 0.5 * ($off / $most) ** 2 - self::PASSED * ($i + $j)
                    - self::UNMARKED * (($isEnd ? 1 : 0) + ($isOtherEnd ? 1 : 0));
                $likely -= match (true) {
                    $length > self::TOO_WIDE[0] * $long && $below < self::TOO_WIDE[1] => self::TOO_WIDE[2],
                    $length < self::TOO_NARROW[0] * $long && $below >= self::TOO_NARROW[1] => self::TOO_NARROW[2],
                    default => 0.0,
                };
                $spans[] = new Span($a, $b, $likely);
            }
        }

        return $spans;
    }

    /**
     * @param non-empty-list<array{float, float, float}> $points
     *
     * @return array{float, float}
     */
    private static function place(array $points, float $at): array
    {
        $i = max(0, min(\count($points) - 2, (int) floor($at)));
        $part = $at - $i;
        [$p, $q] = [$points[$i], $points[$i + 1] ?? $points[$i]];

        return [$p[0] + $part * ($q[0] - $p[0]), $p[1] + $part * ($q[1] - $p[1])];
    }
}
