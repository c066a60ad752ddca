<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Editing;

use Plinth\Core\Geometry\Clip;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Tolerance;
use Plinth\Core\Plan\Model\Wall;

/** The one act that mends two walls which lie on each other, chosen by how they lie. */
final readonly class Mend
{
    /** Nearer than this part of both thicknesses together, two walls are one that was traced twice. */
    private const ONE = 0.25;
    /** Walls at a flatter angle than this lie along each other: the tangent of 20°. */
    private const FLAT = 0.364;
    /** A wall that is moved aside stands clear by this, mm: less is no gap and no overlap. */
    private const CLEAR_MM = 0.01;

    /**
     * @param string $wall that is moved, cut or goes
     * @param string $other that stays
     * @param Point $from where the one of the two that is changed begins then; of a merge it is the other
     * @param Point $to where it ends
     * @param bool|null $takesFrom of a merge: the end of this wall that takes the place of the other's start (true: its start), if one does
     * @param bool|null $takesTo the same for the other's end
     * @param bool|null $cutAtStart of a trim: which end of this wall goes to the other's line
     * @param bool|null $cornerAtStart of a trim: the end of the other that comes along to the corner, if one does
     */
    private function __construct(
        public MendAct $act,
        public string $wall,
        public string $other,
        public Point $from,
        public Point $to,
        public ?bool $takesFrom = null,
        public ?bool $takesTo = null,
        public ?bool $cutAtStart = null,
        public ?bool $cornerAtStart = null,
    ) {
    }

    public static function of(Wall $a, Wall $b): self
    {
        // The thicker one stays, else the longer, else whose id comes first.
        [$wall, $other] = ([$a->thickness, $a->length(), $b->id] <=> [$b->thickness, $b->length(), $a->id]) > 0 ? [$b, $a] : [$a, $b];
        if (null !== $wall->arc() || null !== $other->arc() || $wall->length() <= Wall::JOIN_MM || $other->length() <= Wall::JOIN_MM) {
            return self::removed($wall, $other);
        }
        $reach = ($wall->thickness + $other->thickness) / 2.0;
        [[$t1, $d1], [$t2, $d2]] = [self::seen($other, $wall->from), self::seen($other, $wall->to)];
        $length = $other->length();
        // How far aside this wall lies where both run: at the first and at the last place of that stretch.
        $leans = abs($t2 - $t1) < Tolerance::ROUND_OFF_MM ? 0.0 : ($d2 - $d1) / ($t2 - $t1);
        $aside = static fn (float $t): float => $d1 + ($t - $t1) * $leans;
        $low = max(0.0, min($t1, $t2));
        $high = min($length, max($t1, $t2));
        $isFlat = abs($d2 - $d1) < self::FLAT * abs($t2 - $t1);
        [$first, $last] = $high > $low ? [$aside($low), $aside($high)] : [$aside(($low + $high) / 2.0), $aside(($low + $high) / 2.0)];
        // Walls that cross at a flat angle and touch wherever both run are one that a hand drew twice.
        $isOne = max(abs($first), abs($last)) <= ($first * $last > 0.0 ? self::ONE * 2.0 : 1.0) * $reach;
        if ($isFlat && $isOne) {
            return self::merged($wall, $other, $t1, $t2, $length);
        }
        if ($isFlat && $first * $last > 0.0) {
            $side = $first > 0.0 ? 1.0 : -1.0;
            $by = $side * ($other->thickness / 2.0 - self::nearest($wall, $other, $side) + self::CLEAR_MM);
            [$nx, $ny] = [-($other->to->y - $other->from->y) / $length, ($other->to->x - $other->from->x) / $length];

            return new self(
                MendAct::Beside,
                $wall->id,
                $other->id,
                $wall->from->plus($by * $nx, $by * $ny),
                $wall->to->plus($by * $nx, $by * $ny),
            );
        }

        return ($isFlat ? null : self::trimmed($a, $b)) ?? self::removed($wall, $other);
    }

    /** The shorter one goes: what it alone bounds is less. */
    private static function removed(Wall $wall, Wall $other): self
    {
        [$goes, $stays] = $wall->length() > $other->length() ? [$other, $wall] : [$wall, $other];

        return new self(MendAct::Remove, $goes->id, $stays->id, $goes->from, $goes->to);
    }

    /** Of all four ends the one that has least to go to the other's line, where that runs. */
    private static function trimmed(Wall $a, Wall $b): ?self
    {
        [$best, $least] = [null, \INF];
        foreach ([[$a, $b, true], [$a, $b, false], [$b, $a, true], [$b, $a, false]] as [$wall, $other, $atStart]) {
            [$far, $end] = $atStart ? [$wall->to, $wall->from] : [$wall->from, $wall->to];
            $on = Shift::landing($far, $end, $other->from, $other->to);
            if (null === $on || $on->distanceTo($far) <= Wall::JOIN_MM) {
                continue;
            }
            [$along] = self::seen($other, $on);
            $goes = $end->distanceTo($on) + 10.0 * max(0.0, -$along, $along - $other->length());
            if ($goes < $least) {
                $least = $goes;
                // Beyond the other's end both go on to the corner.
                $corner = match (true) {
                    $along < 0.0 => true,
                    $along > $other->length() => false,
                    default => null,
                };
                $best = new self(
                    MendAct::Trim,
                    $wall->id,
                    $other->id,
                    $atStart ? $on : $wall->from,
                    $atStart ? $wall->to : $on,
                    cutAtStart: $atStart,
                    cornerAtStart: $corner,
                );
            }
        }

        return $best;
    }

    /** How near a wall's body comes to another's centre line where that runs, on one side of it, mm. */
    private static function nearest(Wall $wall, Wall $other, float $side): float
    {
        $corners = array_map(static fn (array $p): array => self::seen($other, new Point(...$p)), $wall->piece(0.0, $wall->length()));
        $beside = Clip::leftOf(Clip::leftOf($corners, [0.0, 0.0], [0.0, -1.0]), [$other->length(), 0.0], [0.0, 1.0]);

        return [] === $beside ? \INF : min(array_map(static fn (array $p): float => $side * $p[1], $beside));
    }

    private static function merged(Wall $wall, Wall $other, float $t1, float $t2, float $length): self
    {
        $ends = $t1 < $t2 ? [[$t1, true], [$t2, false]] : [[$t2, false], [$t1, true]];
        $reaches = [$ends[0][0] < 0.0 ? $ends[0][1] : null, $ends[1][0] > $length ? $ends[1][1] : null];
        $place = static fn (?bool $start, Point $own): Point => null === $start ? $own : ($start ? $wall->from : $wall->to);

        return new self(
            MendAct::Merge,
            $wall->id,
            $other->id,
            $place($reaches[0], $other->from),
            $place($reaches[1], $other->to),
            ...$reaches,
        );
    }

    /** @return array{float, float} how far along a wall's line a point lies, and how far to its left, mm */
    private static function seen(Wall $wall, Point $point): array
    {
        $length = $wall->length();
        [$dx, $dy] = [($wall->to->x - $wall->from->x) / $length, ($wall->to->y - $wall->from->y) / $length];
        [$px, $py] = [$point->x - $wall->from->x, $point->y - $wall->from->y];

        return [$px * $dx + $py * $dy, $py * $dx - $px * $dy];
    }
}
