<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Geometry\Point;

/**
 * Arcs of one pen about one centre, as the lines of one direction are: by their distance from the centre, and where along the axis they
 * run.
 *
 * @internal
 *
 * @phpstan-import-type Level from DrawnLines
 */
final readonly class DrawnRound
{
    /** how often the centre is bettered by all arcs together */
    private const ROUNDS = 4;
    /** mm: arcs less far apart are one line */
    private const TOUCH = 0.5;

    /** @param list<Level> $levels from right to left, which is from outside to inside */
    private function __construct(public DrawnAxis $axis, public array $levels)
    {
    }

    /**
     * @param non-empty-list<non-empty-list<Point>> $arcs
     * @param float $on mm within which arcs have one radius
     */
    public static function of(array $arcs, float $on): self
    {
        [$x, $y] = self::centre($arcs);
        $radius = hypot($arcs[0][0]->x - $x, $arcs[0][0]->y - $y);
        $zero = self::zero($arcs, $x, $y);
        $axis = DrawnAxis::round([$x, $y], $radius, $zero);
        $pieces = [];
        $half = \M_PI * $radius;
        foreach ($arcs as $places) {
            [$across, $from, $to] = self::piece($axis, $places);
            // What runs over the far side lies at both ends.
            array_push($pieces, ...match (true) {
                $to > $half => [[$across, $from, $half], [$across, -$half, $to - 2.0 * $half]],
                $from < -$half => [[$across, -$half, $to], [$across, $from + 2.0 * $half, $half]],
                default => [[$across, $from, $to]],
            });
        }

        return new self($axis, self::levels($pieces, $on));
    }

    /** Whether there is more than one line of it. */
    public function isDouble(): bool
    {
        return \count($this->levels) > 1;
    }

    /**
     * With another arc, or a chord of one that turns no more than so much; null where it is none of these.
     *
     * @param non-empty-list<Point> $places
     */
    public function with(array $places, float $on, float $turn): ?self
    {
        $acrosses = array_map(fn (Point $p): float => $this->axis->of($p->x, $p->y)[1], $places);
        [$across, $spread] = [array_sum($acrosses) / \count($acrosses), max($acrosses) - min($acrosses)];
        [, $from, $to] = self::piece($this->axis, $places);
        if ($spread > $on || $to - $from > $turn * ($this->axis->radius ?? 0.0) || $to - $from < $on) {
            return null;
        }
        foreach ($this->levels as $k => ['out' => $out, 'stretches' => $stretches]) {
            if (abs($out - $across) <= $on) {
                $level = ['out' => $out, 'stretches' => Stretches::merged([...$stretches, [$from, $to]], self::TOUCH)];

                return new self($this->axis, array_values(array_replace($this->levels, [$k => $level])));
            }
        }

        return null;
    }

    /**
     * Centre and radius of a circle by least squares (Kåsa's: x² + y² = 2ax + 2by + c).
     *
     * @param non-empty-list<Point> $places three and more
     *
     * @return array{float, float, float}
     */
    public static function about(array $places): array
    {
        $n = \count($places);
        [$mx, $my] = [
            array_sum(array_map(static fn (Point $p): float => $p->x, $places)) / $n,
            array_sum(array_map(static fn (Point $p): float => $p->y, $places)) / $n,
        ];
        [$uu, $uv, $vv, $uz, $vz, $z] = [0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
        foreach ($places as $p) {
            [$u, $v] = [$p->x - $mx, $p->y - $my];
            $w = $u * $u + $v * $v;
            [$uu, $uv, $vv, $uz, $vz, $z] = [$uu + $u * $u, $uv + $u * $v, $vv + $v * $v, $uz + $u * $w, $vz + $v * $w, $z + $w];
        }
        $det = $uu * $vv - $uv * $uv;
        if (abs($det) < 1e-12 * max(1e-300, $uu * $vv)) {
            return [\INF, \INF, \INF];
        }
        [$a, $b] = [($uz * $vv - $vz * $uv) / $det / 2.0, ($vz * $uu - $uz * $uv) / $det / 2.0];

        return [$mx + $a, $my + $b, sqrt($a * $a + $b * $b + $z / $n)];
    }

    /**
     * The one centre of arcs that each have a radius of their own.
     *
     * @param non-empty-list<non-empty-list<Point>> $arcs
     *
     * @return array{float, float}
     */
    public static function centre(array $arcs): array
    {
        [$x, $y] = self::about($arcs[0]);
        for ($round = 0; $round < self::ROUNDS; ++$round) {
            [$dx, $dy] = self::nearer($arcs, $x, $y);
            [$x, $y] = [$x - $dx, $y - $dy];
        }

        return [$x, $y];
    }

    /**
     * By how much the places are not equally far from a centre, mm.
     *
     * @param non-empty-list<Point> $places
     */
    public static function spread(array $places, float $x, float $y): float
    {
        $off = array_map(static fn (Point $p): float => hypot($p->x - $x, $p->y - $y), $places);
        $spread = max($off) - min($off);

        return is_nan($spread) ? \INF : $spread;
    }

    /** @param non-empty-list<Point> $places */
    public static function reach(array $places): float
    {
        $sum = 0.0;
        for ($i = 1; $i < \count($places); ++$i) {
            $sum += $places[$i]->distanceTo($places[$i - 1]);
        }

        return $sum;
    }

    /**
     * One step of Gauss and Newton: every arc has a radius of its own, and all have one centre.
     *
     * @param non-empty-list<non-empty-list<Point>> $arcs
     *
     * @return array{float, float}
     */
    private static function nearer(array $arcs, float $x, float $y): array
    {
        [$aa, $ab, $bb, $ar, $br] = [0.0, 0.0, 0.0, 0.0, 0.0];
        foreach ($arcs as $places) {
            $rows = array_map(static function (Point $p) use ($x, $y): array {
                $r = hypot($p->x - $x, $p->y - $y);

                return [$r, ($x - $p->x) / $r, ($y - $p->y) / $r];
            }, $places);
            [$mr, $mu, $mv] = array_map(static fn (int $k): float => array_sum(array_column($rows, $k)) / \count($rows), [0, 1, 2]);
            foreach ($rows as [$r, $u, $v]) {
                [$r, $u, $v] = [$r - $mr, $u - $mu, $v - $mv];
                [$aa, $ab, $bb, $ar, $br] = [$aa + $u * $u, $ab + $u * $v, $bb + $v * $v, $ar + $u * $r, $br + $v * $r];
            }
        }
        $det = $aa * $bb - $ab * $ab;

        return abs($det) < 1e-18 ? [0.0, 0.0] : [($ar * $bb - $br * $ab) / $det, ($br * $aa - $ar * $ab) / $det];
    }

    /**
     * Opposite to the widest gap between all arcs, so that nothing that is drawn runs over the far side; of what runs nearly all round,
     * opposite to the middle of the longest one, so that what opens there is whole.
     *
     * @param non-empty-list<non-empty-list<Point>> $arcs
     */
    private static function zero(array $arcs, float $x, float $y): float
    {
        $spans = [];
        foreach ($arcs as $places) {
            $last = atan2($places[0]->y - $y, $places[0]->x - $x);
            [$low, $high, $at] = [$last, $last, $last];
            foreach ($places as $p) {
                $at += self::within(atan2($p->y - $y, $p->x - $x) - $at);
                [$low, $high] = [min($low, $at), max($high, $at)];
            }
            $shift = 2.0 * \M_PI * floor($low / (2.0 * \M_PI));
            $spans[] = [$low - $shift, $high - $shift];
        }
        usort($spans, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        [$widest, $middle, $end] = [-\INF, 0.0, $spans[0][1]];
        foreach ([...\array_slice($spans, 1), [$spans[0][0] + 2.0 * \M_PI, 0.0]] as [$low, $high]) {
            if ($low - $end > $widest) {
                [$widest, $middle] = [$low - $end, ($low + $end) / 2.0];
            }
            $end = max($end, $high);
        }

        if ($widest < \M_PI / 2.0) {
            usort($spans, static fn (array $a, array $b): int => $b[1] - $b[0] <=> $a[1] - $a[0]);
            $middle = ($spans[0][0] + $spans[0][1]) / 2.0;
        }

        return $middle - \M_PI;
    }

    /**
     * @param non-empty-list<Point> $places
     *
     * @return array{float, float, float} across, and from where to where along
     */
    private static function piece(DrawnAxis $axis, array $places): array
    {
        $turn = 2.0 * \M_PI * ($axis->radius ?? 0.0);
        [$last, $across] = $axis->of($places[0]->x, $places[0]->y);
        [$low, $high, $sum] = [$last, $last, 0.0];
        foreach ($places as $p) {
            [$along, $across] = $axis->of($p->x, $p->y);
            $last += self::within(($along - $last) / $turn * 2.0 * \M_PI) / 2.0 / \M_PI * $turn;
            [$low, $high, $sum] = [min($low, $last), max($high, $last), $sum + $across];
        }

        $shift = $turn * round(($low + $high) / 2.0 / $turn);

        return [$sum / \count($places), $low - $shift, $high - $shift];
    }

    /**
     * @param non-empty-list<array{float, float, float}> $pieces
     *
     * @return list<Level>
     */
    private static function levels(array $pieces, float $on): array
    {
        usort($pieces, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $levels = $group = [];
        foreach ($pieces as $k => $piece) {
            $group[] = $piece;
            if (($pieces[$k + 1][0] ?? \INF) - $piece[0] > $on) {
                $whole = array_sum(array_map(static fn (array $p): float => $p[2] - $p[1], $group));
                $out = array_sum(array_map(static fn (array $p): float => $p[0] * ($p[2] - $p[1]), $group)) / max(1e-9, $whole);
                $stretches = array_map(static fn (array $p): array => [$p[1], $p[2]], $group);
                $levels[] = ['out' => $out, 'stretches' => Stretches::merged($stretches, self::TOUCH)];
                $group = [];
            }
        }

        return $levels;
    }

    /** @return float the same angle within half a turn */
    private static function within(float $angle): float
    {
        return $angle - 2.0 * \M_PI * round($angle / 2.0 / \M_PI);
    }
}
