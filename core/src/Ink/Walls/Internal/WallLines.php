<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

/**
 * Stretches that lie in one line put together into walls, over the openings between them.
 *
 * Lengths in mm.
 *
 * @internal
 */
final class WallLines
{
    /** mm from a wall's face to a dimension that is drawn along it: common practice, no source */
    private const LONGEST_TAIL = 2500.0;
    /** mm: what is shorter says nothing of where another wall ends; by trial (bench ink) */
    private const LONG = 900.0;
    /** mm that pieces of one wall lie off each other */
    private const ONE_LINE = 40.0;
    /** mm that a wall runs off the ends beside a gap, and beyond the gap's line, where it crosses the gap; by trial (bench ink) */
    private const OFF_BOTH = 300.0;
    /** Openings are no wider than this: common practice, no source. */
    private const WIDEST_GAP = 4500.0;
    /** A gap of this at most is a crossing wall, or ink that was badly seen. */
    private const NO_GAP = 260.0;
    /** how far the end of a wall may fall short of the one it meets, beyond that one's face */
    private const SHORT = 60.0;
    /** mm: a shorter wall is proposed by nobody; about a pier, common practice, no source */
    public const LEAST_LENGTH = 320.0;
    /** mm of a wall that ink may miss without a gap being meant */
    private const BADLY_SEEN = 60.0;
    /** Where a wall of two lines is joined by another, one of them goes on for so long. */
    private const ONE_FACE = 450.0;

    /**
     * @param list<Strip> $strips of one direction and its perpendicular
     * @param list<Filling> $fillings that are looked at together
     * @param float $wander by how much further than ruled lines those of one wall lie off each other
     *
     * @return list<Strip>
     */
    public static function of(array $strips, array $fillings, Pens $pens, float $cell, Signs $signs, float $wander = 1.0): array
    {
        $strips = array_values(
            array_filter(
                $strips,
                static fn (Strip $s): bool => $pens->mayBeWall($s)
                    && \in_array($s->filling, $fillings, true)
                    && $s->wear <= (Filling::Empty === $s->filling ? 0.13 : 0.35),
            ),
        );
        if ([Filling::Toned] === $fillings) {
            $strips = self::filled($strips);
        }
        $merged = self::merged($strips, $wander * $cell, $signs, $wander);

        $bridged = self::bridged(self::exclusive($merged), $wander * $cell, $signs, $wander);

        return self::reaching(self::withoutTails($bridged, $signs), $signs);
    }

    /**
     * Where fillings reach from face to face, two lines with something between them are windows and furniture.
     *
     * @param list<Strip> $strips
     *
     * @return list<Strip>
     */
    private static function filled(array $strips): array
    {
        $filled = array_values(array_filter($strips, static fn (Strip $s): bool => null === $s->pen));
        $lengths = static fn (Strip $s): float => $s->length();

        return array_sum(array_map($lengths, $filled)) > 0.4 * array_sum(array_map($lengths, $strips)) ? $filled : $strips;
    }

    /**
     * @param list<Strip> $strips
     *
     * @return list<Strip>
     */
    private static function merged(array $strips, float $cell, Signs $signs, float $wander): array
    {
        usort($strips, static fn (Strip $a, Strip $b): int => $b->length() <=> $a->length());
        $walls = [];
        $used = [];
        foreach ($strips as $k => $seed) {
            if (isset($used[$k])) {
                continue;
            }
            $used[$k] = true;
            $wall = new Strip(
                $seed->from,
                $seed->to,
                $seed->at,
                $seed->thickness,
                $seed->filling,
                $seed->plumb,
                $seed->parts,
                $seed->tone,
                $seed->pen,
                $seed->wear,
                $seed->rim,
                $seed->even,
            );
            do {
                $grew = false;
                foreach ($strips as $m => $other) {
                    if (
                        isset($used[$m])
                        || $other->plumb !== $wall->plumb
                        || abs($other->at - $wall->at) > max($wander * 16.0, 1.2 * $cell)
                        || abs($other->thickness - $wall->thickness) > max($wander * 22.0, 1.6 * $cell, 0.1 * $wall->thickness)
                    ) {
                        continue;
                    }
                    if (abs($other->tone - $wall->tone) > 70.0 || !self::isNoGap($wall, $other, $strips, $signs)) {
                        continue;
                    }
                    $used[$m] = true;
                    $grew = true;
                    $seen = $wall->seen();
                    $more = $other->length();
                    $wall->at = ($wall->at * $seen + $other->at * $more) / ($seen + $more);
                    $wall->thickness = ($wall->thickness * $seen + $other->thickness * $more) / ($seen + $more);
                    $wall->even = ($wall->even * $seen + $other->even * $more) / ($seen + $more);
                    $wall->from = min($wall->from, $other->from);
                    $wall->to = max($wall->to, $other->to);
                    $wall->parts = self::joined([...$wall->parts, ...$other->parts]);
                }
            } while ($grew);
            $walls[] = $wall;
        }

        return $walls;
    }

    /**
     * Walls that go on in the same line beyond an opening become one.
     *
     * @param list<Strip> $walls
     *
     * @return list<Strip>
     */
    private static function bridged(array $walls, float $cell, Signs $signs, float $wander): array
    {
        do {
            $pairs = [];
            foreach ($walls as $i => $a) {
                foreach ($walls as $k => $b) {
                    $gap = $b->from - $a->to;
                    if (
                        $i !== $k
                        && $a->plumb === $b->plumb
                        && $gap > -0.5 * min($a->length(), $b->length())
                        && $gap <= self::WIDEST_GAP
                        && abs($a->at - $b->at) <= max($wander * 20.0, 1.5 * $cell)
                        && abs($a->thickness - $b->thickness) <= max($wander * 30.0, 2.2 * $cell, 0.15 * $a->thickness)
                    ) {
                        $pairs[] = [$gap, $i, $k];
                    }
                }
            }
            sort($pairs);
            $grew = false;
            foreach ($pairs as [$gap, $i, $k]) {
                [$a, $b] = [$walls[$i], $walls[$k]];
                // The nearest only: what stands between has its own say.
                foreach ($walls as $m => $other) {
                    if (
                        $m !== $i
                        && $m !== $k
                        && $other->plumb === $a->plumb
                        && abs($other->at - $a->at) <= 40.0
                        && abs($other->thickness - $a->thickness) <= 0.4 * $a->thickness
                        && $other->from < $b->from
                        && $other->to > $a->to
                        && $other->length() < $gap
                    ) {
                        continue 2;
                    }
                }
                if (!self::goesOn($a, $b, $gap, $walls, $signs)) {
                    continue;
                }
                [$seen, $more] = [$a->seen(), $b->seen()];
                $both = new Strip(
                    min($a->from, $b->from),
                    max($a->to, $b->to),
                    ($a->at * $seen + $b->at * $more) / ($seen + $more),
                    ($a->thickness * $seen + $b->thickness * $more) / ($seen + $more),
                    $a->filling,
                    $a->plumb,
                    self::joined([...$a->parts, ...$b->parts]),
                    ($a->tone * $seen + $b->tone * $more) / ($seen + $more),
                    null === $a->pen || null === $b->pen ? $a->pen ?? $b->pen : min($a->pen, $b->pen),
                    ($a->wear + $b->wear) / 2.0,
                    null === $a->rim || null === $b->rim ? $a->rim ?? $b->rim : min($a->rim, $b->rim),
                    ($a->even * $seen + $b->even * $more) / ($seen + $more),
                );
                unset($walls[$i], $walls[$k]);
                $walls = [...$walls, $both];
                $grew = true;
                break;
            }
        } while ($grew);

        return $walls;
    }

    /** @param array<int, Strip> $walls */
    private static function goesOn(Strip $a, Strip $b, float $gap, array $walls, Signs $signs): bool
    {
        if ($gap <= self::BADLY_SEEN) {
            return true;
        }
        $isMet = static function (float $at) use ($a, $walls): bool {
            foreach ($walls as $w) {
                if (
                    $w->plumb !== $a->plumb
                    && $w->length() > self::LONG
                    && abs($at - $w->at) <= $w->thickness / 2.0 + 150.0
                    && $a->at > $w->from - 60.0
                    && $a->at < $w->to + 60.0
                ) {
                    return true;
                }
            }

            return false;
        };
        $met = ($isMet($a->to) ? 1 : 0) + ($isMet($b->from) ? 1 : 0);
        if ($gap <= 3200.0 && 0 === $met && !self::isCrossed($a, $b, $walls)) {
            return true;
        }

        return $signs->isLined($a, $a->to, $b->from) || ($gap < 2400.0 && $signs->hasLeaf($a, $a->to, $b->from));
    }

    /**
     * Another wall runs through the gap between two, well off both: that is no opening of one wall.
     *
     * @param array<int, Strip> $walls
     */
    private static function isCrossed(Strip $a, Strip $b, array $walls): bool
    {
        foreach ($walls as $w) {
            if (
                $w->plumb !== $a->plumb
                && $w->length() > self::LONG
                && $w->at > $a->to + self::OFF_BOTH
                && $w->at < $b->from - self::OFF_BOTH
                && $a->at > $w->from + self::OFF_BOTH
                && $a->at < $w->to - self::OFF_BOTH
            ) {
                return true;
            }
        }

        return false;
    }

    /**
     * A filled wall that goes on beyond one that it meets, and is not filled there, ends at that one: those are the lines that carry its
     * measure out to a dimension.
     *
     * @param array<int, Strip> $walls
     *
     * @return list<Strip>
     */
    private static function withoutTails(array $walls, Signs $signs): array
    {
        foreach ($walls as $wall) {
            foreach ([false, true] as $isEnd) {
                $end = $isEnd ? $wall->to : $wall->from;
                $last = null;
                foreach ($walls as $other) {
                    if ($other->filling !== $wall->filling || $other->length() < self::LONG || !self::meetsLineOf($other, $wall)) {
                        continue;
                    }
                    $beyond = ($isEnd ? $end - $other->at : $other->at - $end) - $other->thickness / 2.0;
                    $last = null === $last || $beyond < $last[0] ? [$beyond, $other] : $last;
                }
                if (null === $last || $last[0] <= self::NO_GAP || $last[0] > min(self::LONGEST_TAIL, 0.5 * $wall->length())) {
                    continue;
                }
                [$before, $face] = $isEnd
                    ? [$last[1]->at - $last[1]->thickness / 2.0, $last[1]->at + $last[1]->thickness / 2.0]
                    : [$last[1]->at + $last[1]->thickness / 2.0, $last[1]->at - $last[1]->thickness / 2.0];
                $inside = $isEnd ? $before - self::NO_GAP : $before + self::NO_GAP;
                if (
                    $signs->isFilled($wall, min($inside, $before), max($inside, $before))
                    && !$signs->isFilled($wall, min($end, $face), max($end, $face))
                ) {
                    $isEnd ? $wall->to = $last[1]->at : $wall->from = $last[1]->at;
                    $wall->parts = self::within($wall);
                }
            }
        }

        return array_values($walls);
    }

    /** Whether a wall runs square to another and comes to that one's line, or to a face of it at least. */
    private static function meetsLineOf(Strip $crossing, Strip $wall): bool
    {
        $margin = $wall->thickness / 2.0 + self::SHORT;

        return $crossing->plumb !== $wall->plumb && $wall->at >= $crossing->from - $margin && $wall->at <= $crossing->to + $margin;
    }

    /** @return list<array{float, float}> the parts of a wall that lie between its ends */
    private static function within(Strip $wall): array
    {
        $parts = [];
        foreach ($wall->parts as [$from, $to]) {
            if (min($to, $wall->to) > max($from, $wall->from)) {
                $parts[] = [max($from, $wall->from), min($to, $wall->to)];
            }
        }

        return $parts;
    }

    /**
     * A wall that ends at a door beside a crossing wall goes on to it.
     *
     * @param list<Strip> $walls
     *
     * @return list<Strip>
     */
    private static function reaching(array $walls, Signs $signs): array
    {
        $inLine = self::inLine($walls);
        foreach ($walls as $wall) {
            if ($wall->length() < self::LEAST_LENGTH) {
                continue;
            }
            foreach ([false, true] as $isEnd) {
                $end = $isEnd ? $wall->to : $wall->from;
                $nearest = null;
                foreach ($walls as $k => $other) {
                    if ($inLine[$k] < self::LONG || !self::meetsLineOf($other, $wall)) {
                        continue;
                    }
                    $gap = ($isEnd ? $other->at - $end : $end - $other->at) - $other->thickness / 2.0;
                    if ($gap < -$other->thickness - self::SHORT) {
                        continue;
                    }
                    $nearest = null === $nearest || $gap < $nearest[0] ? [$gap, $other] : $nearest;
                }
                if (null === $nearest || $nearest[0] <= self::NO_GAP || $nearest[0] > 2200.0) {
                    continue;
                }
                $jamb = $isEnd ? $end + $nearest[0] : $end - $nearest[0];
                [$from, $to] = [min($end, $jamb), max($end, $jamb)];
                if (
                    !self::isTaken($wall, $from, $to, $walls)
                    && ($signs->hasLeaf($wall, $from, $to) || $signs->isLined($wall, $from, $to))
                ) {
                    $isEnd ? $wall->to = $nearest[1]->at : $wall->from = $nearest[1]->at;
                }
            }
        }

        return $walls;
    }

    /**
     * How much of a wall lies in the line of each: by its openings it comes in pieces.
     *
     * @param array<int, Strip> $walls
     *
     * @return array<int, float> mm
     */
    private static function inLine(array $walls): array
    {
        return array_map(static fn (Strip $wall): float => array_sum(array_map(
            static fn (Strip $w): float => $w->plumb === $wall->plumb && abs($w->at - $wall->at) < self::ONE_LINE ? $w->length() : 0.0,
            $walls,
        )), $walls);
    }

    /**
     * What is drawn there is another wall.
     *
     * @param list<Strip> $walls
     */
    private static function isTaken(Strip $wall, float $from, float $to, array $walls): bool
    {
        foreach ($walls as $other) {
            if (
                $other !== $wall
                && $other->plumb === $wall->plumb
                && abs($other->at - $wall->at) < ($other->thickness + $wall->thickness) / 2.0
                && min($other->to, $to) - max($other->from, $from) > 0.5 * ($to - $from)
            ) {
                return true;
            }
        }

        return false;
    }

    /**
     * Ink that was badly seen, or a wall that crosses.
     *
     * @param list<Strip> $strips
     */
    private static function isNoGap(Strip $a, Strip $b, array $strips, Signs $signs): bool
    {
        [$from, $to] = $a->from < $b->from ? [$a->to, $b->from] : [$b->to, $a->from];
        if ($to - $from <= self::BADLY_SEEN) {
            return true;
        }
        if ($to - $from > Strips::THICKNESS_MM[1] + 2.0 * self::BADLY_SEEN) {
            return false;
        }
        if ($signs->isFilled($a, $from, $to) || ($to - $from <= self::ONE_FACE && $signs->hasFace($a, $from, $to))) {
            return true;
        }
        foreach ($strips as $s) {
            if (
                $s->plumb !== $a->plumb
                && $s->at - $s->thickness / 2.0 - self::BADLY_SEEN < $from
                && $s->at + $s->thickness / 2.0 + self::BADLY_SEEN > $to
                && $s->to > $a->at - $a->thickness / 2.0 - self::SHORT
                && $s->from < $a->at + $a->thickness / 2.0 + self::SHORT
            ) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param list<array{float, float}> $parts
     *
     * @return list<array{float, float}>
     */
    private static function joined(array $parts): array
    {
        usort($parts, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $out = [];
        foreach ($parts as $part) {
            $last = array_key_last($out);
            if (null !== $last && $part[0] <= $out[$last][1]) {
                $out[$last][1] = max($out[$last][1], $part[1]);
            } else {
                $out[] = $part;
            }
        }

        return $out;
    }

    /**
     * Where two lie on each other only the better one stays.
     *
     * @param list<Strip> $walls
     *
     * @return list<Strip>
     */
    private static function exclusive(array $walls): array
    {
        $worth = [];
        $kinds = self::thicknesses($walls);
        foreach ($walls as $k => $wall) {
            $kind = $kinds[self::bin($wall->thickness)] ?? 0.0;
            $worth[$k] = $wall->seen() * (1.0 - $wall->wear) * (0.5 + self::ends($wall, $walls)) * sqrt($kind);
        }
        arsort($worth);
        $kept = [];
        foreach (array_keys($worth) as $k) {
            $wall = $walls[$k];
            foreach ($kept as $other) {
                if ($other->plumb === $wall->plumb && min($other->to, $wall->to) - max($other->from, $wall->from) > 0.15 * min(
                    $other->length(),
                    $wall->length(),
                )
                    && abs($other->at - $wall->at) < 0.5 * ($other->thickness + $wall->thickness) - 0.3 * min(
                        $other->thickness,
                        $wall->thickness,
                    )) {
                    continue 2;
                }
                // One line serves one wall.
                if (
                    $other->plumb === $wall->plumb
                    && Filling::Solid !== $wall->filling
                    && min($other->to, $wall->to) - max($other->from, $wall->from) > 0.5 * $wall->length()
                    && abs(abs($other->at - $wall->at) - 0.5 * ($other->thickness + $wall->thickness)) < 25.0
                ) {
                    continue 2;
                }
            }
            $kept[] = $wall;
        }

        return $kept;
    }

    private static function bin(float $thickness): int
    {
        return (int) round($thickness / 20.0);
    }

    /**
     * @param list<Strip> $walls
     *
     * @return array<int, float> length by thickness, neighbours counted in
     */
    private static function thicknesses(array $walls): array
    {
        $bins = [];
        foreach ($walls as $wall) {
            for ($k = -1; $k <= 1; ++$k) {
                $bin = self::bin($wall->thickness) + $k;
                $bins[$bin] = ($bins[$bin] ?? 0.0) + $wall->seen() * (0 === $k ? 1.0 : 0.5);
            }
        }

        return $bins;
    }

    /**
     * How many of its ends meet another wall.
     *
     * @param list<Strip> $walls
     */
    private static function ends(Strip $wall, array $walls): int
    {
        $met = [false, false];
        foreach ($walls as $other) {
            if ($other->plumb === $wall->plumb || $other->length() < self::LEAST_LENGTH) {
                continue;
            }
            if ($wall->at < $other->from - self::SHORT - $wall->thickness || $wall->at > $other->to + self::SHORT + $wall->thickness) {
                continue;
            }
            $half = $other->thickness / 2.0 + self::SHORT;
            $met[0] = $met[0] || abs($wall->from - $other->at) <= $half;
            $met[1] = $met[1] || abs($wall->to - $other->at) <= $half;
        }

        return ($met[0] ? 1 : 0) + ($met[1] ? 1 : 0);
    }
}
