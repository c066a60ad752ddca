<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Editing;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Segment;
use Plinth\Core\Geometry\Tolerance;
use Plinth\Core\Plan\Editing\Exception\UnusableEdit;
use Plinth\Core\Plan\Model\JoinedWall;
use Plinth\Core\Plan\Model\Line;
use Plinth\Core\Plan\Model\Wall;

/**
 * Moves walls with all that is joined to them.
 *
 * A wall that is moved across itself takes along what goes straight on from it; at its ends the walls it meets keep
 * their directions and become longer or shorter, and walls that end on it follow to its new line. What is dragged
 * otherwise goes as it is dragged, and walls that end on it follow.
 */
final class Shift
{
    private const PARALLEL_DEGREES = 1.0;
    private const ROUNDS = 8;

    /** @var array<string, JoinedWall> */
    private array $walls = [];
    /** @var array<string, list<string>> node → walls that end there */
    private array $at = [];

    /**
     * @param list<JoinedWall> $walls those concerned and all near them
     * @param array<string, Point> $nodes
     */
    public function __construct(array $walls, private array $nodes)
    {
        foreach ($walls as $wall) {
            $this->walls[$wall->wall->id] = $wall;
            $this->at[$wall->from][] = $wall->wall->id;
            $this->at[$wall->to][] = $wall->wall->id;
        }
    }

    /**
     * Moves a wall across itself.
     *
     * @param float $left mm, to the left of from → to
     *
     * @return array<string, Point> nodes that go elsewhere
     */
    public function across(string $id, float $left): array
    {
        [$ux, $uy] = $this->direction($id);
        $by = [-$uy * $left, $ux * $left];
        $run = $this->run($id);
        $to = [];
        foreach ($run as $wall) {
            foreach ([$this->walls[$wall]->from, $this->walls[$wall]->to] as $node) {
                $to[$node] ??= $this->slid($node, $run, $by, [$ux, $uy]);
            }
        }

        return $this->followed($to);
    }

    /**
     * Makes a straight wall as long as stated, along its own direction.
     *
     * @param float $mm between its two nodes
     * @param bool $startStays otherwise its end does
     *
     * @return array<string, Point> nodes that go elsewhere
     *
     * @throws UnusableEdit
     */
    public function asLongAs(string $id, float $mm, bool $startStays): array
    {
        if (null !== $this->walls[$id]->wall->arc()) {
            throw UnusableEdit::curved();
        }
        [$ux, $uy] = $this->direction($id);
        [$stays, $goes, $by] = $startStays ? [$this->walls[$id]->from, $this->walls[$id]->to, $mm] : [
            $this->walls[$id]->to,
            $this->walls[$id]->from,
            -$mm,
        ];

        return $this->followed([$goes => $this->nodes[$stays]->plus($by * $ux, $by * $uy)]);
    }

    /**
     * Moves some nodes as they are dragged.
     *
     * @param array<string, Point> $to
     *
     * @return array<string, Point> nodes that go elsewhere, those among them
     */
    public function nodes(array $to): array
    {
        return $this->followed($to);
    }

    /**
     * Moves the wall of one face until the distance between two parallel faces is as stated.
     *
     * @param Line $aSide of wall a; its centre line counts too
     * @param string $moves the wall of the two that is not held
     *
     * @return array<string, Point> nodes that go elsewhere
     *
     * @throws UnusableEdit
     */
    public function apart(string $a, Line $aSide, string $b, Line $bSide, float $mm, string $moves): array
    {
        $now = self::distance($this->walls[$a]->wall, $aSide, $this->walls[$b]->wall, $bSide);
        $held = $moves === $a ? $b : $a;
        if (\in_array($held, $this->run($moves), true)) {
            throw UnusableEdit::bothHeld();
        }
        // Away from the held face by what is missing.
        [$side, $heldSide] = $moves === $a ? [$aSide, $bSide] : [$bSide, $aSide];
        [$ux, $uy] = $this->direction($moves);
        $p = self::face($this->walls[$moves]->wall, $side);
        $q = self::face($this->walls[$held]->wall, $heldSide);
        $left = ($p->x - $q->x) * -$uy + ($p->y - $q->y) * $ux;

        return $this->across($moves, ($left < 0.0 ? -1.0 : 1.0) * ($mm - $now));
    }

    /**
     * Distance between two parallel faces, mm, square to the first.
     *
     * @throws UnusableEdit
     */
    public static function distance(Wall $a, Line $aSide, Wall $b, Line $bSide): float
    {
        if ($a->id === $b->id) {
            throw UnusableEdit::same();
        }
        if (null !== $a->arc() || null !== $b->arc()) {
            throw UnusableEdit::curved();
        }
        $length = $a->length();
        $ux = ($a->to->x - $a->from->x) / $length;
        $uy = ($a->to->y - $a->from->y) / $length;
        $vx = ($b->to->x - $b->from->x) / $b->length();
        $vy = ($b->to->y - $b->from->y) / $b->length();
        $off = rad2deg(asin(min(1.0, abs($ux * $vy - $uy * $vx))));
        if ($off > self::PARALLEL_DEGREES) {
            throw UnusableEdit::notParallel($off);
        }
        $p = self::face($a, $aSide);
        $q = self::face($b, $bSide);

        return abs(($q->x - $p->x) * -$uy + ($q->y - $p->y) * $ux);
    }

    /** The middle of a face of a straight wall. */
    private static function face(Wall $wall, Line $side): Point
    {
        return $wall->at($wall->length() / 2.0, match ($side) {
            Line::Left => $wall->thickness / 2.0,
            Line::Right => -$wall->thickness / 2.0,
            Line::Centre => 0.0,
        });
    }

    /** @return array{float, float} of from → to; of an arc along its chord */
    private function direction(string $id): array
    {
        $from = $this->nodes[$this->walls[$id]->from];
        $to = $this->nodes[$this->walls[$id]->to];
        $length = $from->distanceTo($to);

        return [($to->x - $from->x) / $length, ($to->y - $from->y) / $length];
    }

    /** @return list<string> the wall and those that go straight on from it, node after node */
    public function run(string $id): array
    {
        $run = [$id];
        for ($i = 0; $i < \count($run); ++$i) {
            $wall = $this->walls[$run[$i]];
            if (null !== $wall->wall->arc()) {
                continue;
            }
            [$ux, $uy] = $this->direction($run[$i]);
            foreach ([$wall->from, $wall->to] as $node) {
                foreach ($this->at[$node] as $other) {
                    [$vx, $vy] = $this->direction($other);
                    if (
                        !\in_array($other, $run, true)
                        && null === $this->walls[$other]->wall->arc()
                        && abs($ux * $vy - $uy * $vx) < Tolerance::STRAIGHT_SINE
                    ) {
                        $run[] = $other;
                    }
                }
            }
        }

        return $run;
    }

    /**
     * Where a node of a moved run goes: along the wall that it meets there, or simply along.
     *
     * @param list<string> $run
     * @param array{float, float} $by
     * @param array{float, float} $along direction of the run
     */
    private function slid(string $node, array $run, array $by, array $along): Point
    {
        $p = $this->nodes[$node];
        $moved = $p->plus($by[0], $by[1]);
        $best = null;
        // Flatter, a crossing runs off: ends move along instead of sliding.
        $steepest = Tolerance::LANDING_SINE;
        foreach ($this->meeting($node) as $other) {
            if (\in_array($other, $run, true) || null !== $this->walls[$other]->wall->arc()) {
                continue;
            }
            [$vx, $vy] = $this->direction($other);
            $sine = $along[0] * $vy - $along[1] * $vx;
            if (abs($sine) > $steepest) {
                $steepest = abs($sine) + 1e-6;
                // p + t v lies on the moved line: its offset across the run is that of the move.
                $across = -$along[1] * $by[0] + $along[0] * $by[1];
                $t = $across / $sine;
                $best = $p->plus($t * $vx, $t * $vy);
            }
        }

        return $best ?? $moved;
    }

    /** @return list<string> walls that end at a node or pass through it */
    private function meeting(string $node): array
    {
        $p = $this->nodes[$node];
        $meeting = $this->at[$node] ?? [];
        foreach ($this->walls as $id => $wall) {
            if (
                $wall->from !== $node
                && $wall->to !== $node
                && $this->isOn($p, $this->nodes[$wall->from], $this->nodes[$wall->to], $wall->wall->thickness / 2.0)
            ) {
                $meeting[] = $id;
            }
        }

        return $meeting;
    }

    private function isOn(Point $p, Point $a, Point $b, float $within): bool
    {
        $r = $within + Wall::JOIN_MM;
        if (
            $p->x < min($a->x, $b->x) - $r
            || $p->x > max($a->x, $b->x) + $r
            || $p->y < min($a->y, $b->y) - $r
            || $p->y > max($a->y, $b->y) + $r
        ) {
            return false;
        }
        [$x, $y, $t] = Segment::nearest($p->toArray(), $a->toArray(), $b->toArray());

        return $t > 0.0 && $t < 1.0 && hypot($x - $p->x, $y - $p->y) <= $within + Wall::JOIN_MM;
    }

    /**
     * Walls that end on a moved wall follow to its new line, along their own direction.
     *
     * @param array<string, Point> $to
     *
     * @return array<string, Point>
     *
     * @throws UnusableEdit
     */
    private function followed(array $to): array
    {
        for ($round = 0; $round < self::ROUNDS; ++$round) {
            $more = [];
            foreach ($this->walls as $host) {
                if (!isset($to[$host->from]) && !isset($to[$host->to])) {
                    continue;
                }
                $a = $this->nodes[$host->from];
                $b = $this->nodes[$host->to];
                $newA = $to[$host->from] ?? $a;
                $newB = $to[$host->to] ?? $b;
                foreach ($this->endingOn($host, $a, $b) as $node => $guest) {
                    if (!isset($to[$node])) {
                        $more[$node] = self::landing(
                            $this->nodes[$guest->from === $node ? $guest->to : $guest->from],
                            $this->nodes[$node],
                            $newA,
                            $newB,
                        ) ?? $this->carried($this->nodes[$node], $a, $b, $newA, $newB);
                    }
                }
            }
            if ([] === $more) {
                break;
            }
            $to += $more;
        }
        foreach ($this->walls as $wall) {
            $from = $to[$wall->from] ?? $this->nodes[$wall->from];
            $end = $to[$wall->to] ?? $this->nodes[$wall->to];
            if ($from->distanceTo($end) <= Wall::JOIN_MM) {
                throw UnusableEdit::wouldVanish('A wall');
            }
        }

        return array_filter($to, fn (Point $p, string $node): bool => $p->distanceTo($this->nodes[$node]) > 0.0, \ARRAY_FILTER_USE_BOTH);
    }

    /** @return array<string, JoinedWall> node → the wall that ends there, on the host */
    private function endingOn(JoinedWall $host, Point $a, Point $b): array
    {
        $ending = [];
        foreach ($this->walls as $guest) {
            foreach ([$guest->from, $guest->to] as $node) {
                if (
                    $guest !== $host
                    && $node !== $host->from
                    && $node !== $host->to
                    && $this->isOn($this->nodes[$node], $a, $b, $host->wall->thickness / 2.0)
                ) {
                    $ending[$node] = $guest;
                }
            }
        }

        return $ending;
    }

    /** Where a wall, drawn on along its own direction, meets a line; null where it runs nearly the same way. */
    public static function landing(Point $start, Point $end, Point $a, Point $b): ?Point
    {
        $meeting = Segment::meeting($start->toArray(), $end->toArray(), $a->toArray(), $b->toArray(), Tolerance::LANDING_SINE);

        return null === $meeting ? null : $a->towards($b, $meeting[1]);
    }

    /** The same part of the way along the host as before. */
    private function carried(Point $p, Point $a, Point $b, Point $newA, Point $newB): Point
    {
        [, , $t] = Segment::nearest($p->toArray(), $a->toArray(), $b->toArray());

        return $newA->towards($newB, $t);
    }
}
