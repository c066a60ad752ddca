<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

/**
 * A stretch between two lines of one pen that run beside each other, parallel or about one centre, with none of that pen between them.
 *
 * @internal
 *
 * @phpstan-import-type Direction from DrawnLines
 */
final readonly class DrawnStrip
{
    /** mm: thinner and thicker than this is no wall */
    private const THICK = [40.0, 700.0];
    /** mm: what two strips may differ by to be of one wall, and by which a jamb may miss a face */
    private const SAME = [0.4, 2.0];
    /** mm: the widest opening */
    private const WIDEST = 5000.0;
    /** sine of the angle under which walls meet at least */
    private const SLANT = 0.1;
    /** more lines of one pen than any drawing has walls */
    private const MOST = 6000;
    /** radians by which a ray is turned off the strip's own direction, so that it runs through no corner */
    private const OFF = 0.0137;
    /** part of all strips that agree on which side of lines walls lie, for that to be known at all */
    private const AGREED = 0.75;

    private function __construct(public int $direction, public float $right, public float $left, public float $from, public float $to)
    {
    }

    /** @return list<DrawnWall> */
    public static function walls(DrawnLines $lines): array
    {
        $segments = $lines->segments();
        if (\count($segments) > self::MOST) {
            return [];
        }
        $strips = self::within(self::all($lines), $lines, $segments);
        $groups = [];
        foreach ($strips as $strip) {
            foreach ($groups as $k => [$first]) {
                $off = max(abs($first->right - $strip->right), abs($first->left - $strip->left));
                if ($first->direction === $strip->direction && $off < self::SAME[0]) {
                    $groups[$k][] = $strip;
                    continue 2;
                }
            }
            $groups[] = [$strip];
        }
        $pieces = array_map(static fn (self $strip): DrawnWall => self::wall($lines, [$strip], []), $strips);
        $walls = [];
        foreach ($groups as $group) {
            array_push($walls, ...self::joined($group, $lines, $segments, $pieces));
        }

        return self::withoutPiers($walls);
    }

    /**
     * What is left of a wall between its openings lies between jambs as well: the short way across it is no wall.
     *
     * @param list<DrawnWall> $walls
     *
     * @return list<DrawnWall>
     */
    private static function withoutPiers(array $walls): array
    {
        $isLong = static fn (DrawnWall $w): bool => $w->to - $w->from > $w->thickness;

        $isInAnother = static function (DrawnWall $w) use ($walls, $isLong): bool {
            [$x, $y] = $w->middle();
            foreach ($walls as $o) {
                if ($o !== $w && $isLong($o) && $o->to - $o->from > $w->to - $w->from && $o->has($x, $y, $w->thickness / 2.0)) {
                    return true;
                }
            }

            return false;
        };

        return array_values(array_filter($walls, static fn (DrawnWall $w): bool => $isLong($w) || !$isInAnother($w)));
    }

    /**
     * Strips in one line as walls: over what ends on them, and over openings.
     *
     * @param non-empty-list<self> $group
     * @param list<array{float, float, float, float}> $segments
     * @param list<DrawnWall> $pieces all strips
     *
     * @return list<DrawnWall>
     */
    private static function joined(array $group, DrawnLines $lines, array $segments, array $pieces): array
    {
        usort($group, static fn (self $a, self $b): int => $a->from <=> $b->from);
        $walls = [];
        [$run, $openings] = [[$group[0]], []];
        foreach (\array_slice($group, 1) as $strip) {
            $before = $run[\count($run) - 1];
            $both = self::wall($lines, [$before, $strip], []);
            $by = $lines->directions[$strip->direction]['axis']->along(($strip->right + $strip->left) / 2.0);
            $gap = [$by * $before->to, $by * $strip->from];
            $isMet = self::isMet($both, $gap, $pieces);
            $isOpening = !$isMet && $gap[1] - $gap[0] <= self::WIDEST
                && self::hasJamb($both, $gap[0], $segments) && self::hasJamb($both, $gap[1], $segments);
            if (!$isMet && !$isOpening) {
                $walls[] = self::wall($lines, $run, $openings);
                [$run, $openings] = [[], []];
            } elseif ($isOpening) {
                $openings[] = $gap;
            }
            $run[] = $strip;
        }
        $walls[] = self::wall($lines, $run, $openings);

        return $walls;
    }

    /**
     * Whether a gap is where other walls end on this one or cross it.
     *
     * @param array{float, float} $gap along the wall
     * @param list<DrawnWall> $pieces
     */
    private static function isMet(DrawnWall $wall, array $gap, array $pieces): bool
    {
        if ($gap[1] - $gap[0] < self::SAME[1]) {
            return true;
        }
        if ($gap[1] - $gap[0] > 2.0 * self::THICK[1]) {
            return false;
        }
        $middle = ($gap[0] + $gap[1]) / 2.0;
        [$u, $v] = $wall->axis->way($middle);
        // What ends on it ends on one of its faces.
        foreach ([0.0, $wall->thickness / 2.0, -$wall->thickness / 2.0] as $across) {
            [$x, $y] = $wall->axis->at($middle, $across);
            foreach ($pieces as $piece) {
                if (!$piece->has($x, $y, ($wall->thickness + $piece->thickness) / self::SLANT)) {
                    continue;
                }
                $way = $piece->axis->way($piece->axis->of($x, $y)[0]);
                $sine = abs($way[0] * $v - $way[1] * $u);
                $cosine = abs($way[0] * $u + $way[1] * $v);
                $before = ($wall->thickness + $piece->thickness * $cosine) / 2.0 / max(self::SLANT, $sine) + self::SAME[1];
                if ($sine > self::SLANT && $piece->has($x, $y, $before)) {
                    return true;
                }
            }
        }

        return false;
    }

    /** @param list<array{float, float, float, float}> $segments */
    private static function hasJamb(DrawnWall $wall, float $at, array $segments): bool
    {
        $half = $wall->thickness / 2.0;
        foreach ($segments as [$x1, $y1, $x2, $y2]) {
            [$s1, $a1] = $wall->axis->of($x1, $y1);
            [$s2, $a2] = $wall->axis->of($x2, $y2);
            if (
                abs($s1 - $at) < self::SAME[1] && abs($s2 - $at) < self::SAME[1]
                && min($a1, $a2) < self::SAME[1] - $half && max($a1, $a2) > $half - self::SAME[1]
            ) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param non-empty-list<self> $strips
     * @param list<array{float, float}> $openings along the wall's own axis
     */
    private static function wall(DrawnLines $lines, array $strips, array $openings): DrawnWall
    {
        $axis = $lines->directions[$strips[0]->direction]['axis'];
        $whole = array_sum(array_map(static fn (self $s): float => $s->to - $s->from, $strips));
        [$right, $left] = [0.0, 0.0];
        foreach ($strips as $strip) {
            $right += $strip->right * ($strip->to - $strip->from) / $whole;
            $left += $strip->left * ($strip->to - $strip->from) / $whole;
        }
        $out = ($right + $left) / 2.0;

        $by = $axis->along($out);

        return new DrawnWall(
            $axis->beside($out),
            $left - $right,
            $by * min(array_map(static fn (self $s): float => $s->from, $strips)),
            $by * max(array_map(static fn (self $s): float => $s->to, $strips)),
            $openings,
        );
    }

    /** @return list<self> */
    private static function all(DrawnLines $lines): array
    {
        $strips = [];
        foreach ($lines->directions as $direction => ['levels' => $levels]) {
            foreach ($levels as $i => ['out' => $right, 'stretches' => $free]) {
                for ($j = $i + 1; $j < \count($levels) && [] !== $free && $levels[$j]['out'] - $right <= self::THICK[1]; ++$j) {
                    ['out' => $left, 'stretches' => $there] = $levels[$j];
                    $open = [];
                    foreach ($free as [$from, $to]) {
                        foreach ($there as [$begin, $end]) {
                            if ($end <= $from || $begin >= $to) {
                                continue;
                            }
                            if ($left - $right >= self::THICK[0]) {
                                $strips[] = new self($direction, $right, $left, max($from, $begin), min($to, $end));
                            }
                            if ($begin > $from) {
                                $open[] = [$from, $begin];
                            }
                            $from = $end;
                        }
                        if ($from < $to) {
                            $open[] = [$from, $to];
                        }
                    }
                    $free = $open;
                }
            }
        }

        return $strips;
    }

    /**
     * Those that lie within walls.
     *
     * @param list<self> $strips
     * @param list<array{float, float, float, float}> $segments
     *
     * @return list<self>
     */
    private static function within(array $strips, DrawnLines $lines, array $segments): array
    {
        [$odd, $sums] = [[], [0.0, 0.0]];
        foreach ($strips as $k => $strip) {
            $wall = self::wall($lines, [$strip], []);
            $odd[$k] = null;
            // Where both rays do not agree, something that is drawn open stands in the way of one: another place may see by it.
            foreach ([0.5, 0.27, 0.81] as $part) {
                $odd[$k] ??= self::side($wall, $wall->from + $part * ($wall->to - $wall->from), $segments);
            }
            if (null !== $odd[$k]) {
                // Rooms are wide for their length: they count less.
                $sums[$odd[$k]] += ($strip->to - $strip->from) / $wall->thickness;
            }
        }
        if (max($sums) < self::AGREED * array_sum($sums)) {
            return $strips;
        }
        $inside = $sums[1] >= $sums[0] ? 1 : 0;

        return array_values(array_filter($strips, static fn (int $k): bool => $odd[$k] === $inside, \ARRAY_FILTER_USE_KEY));
    }

    /**
     * @param list<array{float, float, float, float}> $segments
     *
     * @return int|null whether rays to both sides meet an odd number of lines, 1, or an even one, 0; null where they do not agree
     */
    private static function side(DrawnWall $wall, float $at, array $segments): ?int
    {
        [[$x, $y], [$along, $up]] = [$wall->axis->at($at), $wall->axis->way($at)];
        [$c, $s] = [cos(self::OFF), sin(self::OFF)];
        $rays = [];
        foreach ([1.0, -1.0] as $sign) {
            [$u, $v] = [-$sign * ($up * $c + $along * $s), $sign * ($along * $c - $up * $s)];
            $rays[] = self::met($x, $y, $u, $v, $segments) % 2;
        }

        return $rays[0] === $rays[1] ? $rays[0] : null;
    }

    /**
     * @param list<array{float, float, float, float}> $segments
     *
     * @return int how many a ray meets
     */
    private static function met(float $x, float $y, float $u, float $v, array $segments): int
    {
        $count = 0;
        foreach ($segments as [$x1, $y1, $x2, $y2]) {
            $a = $u * ($y1 - $y) - $v * ($x1 - $x);
            $b = $u * ($y2 - $y) - $v * ($x2 - $x);
            if ($a > 0.0 === $b > 0.0) {
                continue;
            }
            $t = $a / ($a - $b);
            if ($u * ($x1 + $t * ($x2 - $x1) - $x) + $v * ($y1 + $t * ($y2 - $y1) - $y) > 0.0) {
                ++$count;
            }
        }

        return $count;
    }
}
