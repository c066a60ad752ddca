<?php

declare(strict_types=1);

namespace Plinth\Core\Stairs\Internal;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Geometry\Segment;
use Plinth\Core\Plan\Model\Stair;
use Plinth\Core\Plan\Model\StairTurn;
use Plinth\Core\Stairs\Exception\UnbuildableStair;
use Plinth\Core\Stairs\Tread;

/**
 * The treads of a stair along its walking line.
 *
 * Flights are as long as the line leaves them between what lies at its corners, and share the treads so that their goings are as equal as
 * whole numbers allow. A landing or winders turn about the point where the inner edges of both flights meet.
 *
 * @internal
 *
 * A corner is what lies there: its edges, how far the walking line runs over it, and by how much it turns, radians.
 *
 * @phpstan-type Corner array{
 *     left: non-empty-list<array{float, float}>, right: non-empty-list<array{float, float}>, going: float, turn: float
 * }
 */
final class LaidTreads
{
    /** A turn by less is none, radians; what an arc may be off what it goes on from; and what no stair turns at once. */
    private const STRAIGHT = 0.009;
    private const TANGENT = 0.035;
    private const SHARP = 2.62;
    /** Between two corners nearer than this lies no flight: one landing goes round both; mm. */
    private const ONE_LANDING_MM = 150.0;
    private const NOTHING_MM = 1.0;

    /** @var list<WalkingLine|Corner> in their order */
    private array $parts = [];

    private function __construct(private readonly Stair $stair)
    {
    }

    /**
     * @return non-empty-list<Tread>
     *
     * @throws UnbuildableStair
     */
    public static function of(Stair $stair): array
    {
        $laid = new self($stair);
        $turned = $laid->walk();
        $treads = $laid->treads();
        if (abs($turned) < 2.0 * \M_PI - self::TANGENT) {
            $rings = array_map(static fn (Tread $t): array => $t->ring, $treads);
            $all = array_sum(array_map(Polygon::area(...), $rings));
            if ($all - Overlay::area(Overlay::union($rings)) > 10.0 + 1e-6 * $all) {
                throw UnbuildableStair::overlap();
            }
        }

        return $treads;
    }

    /** @return float by how much it turns in all, radians */
    private function walk(): float
    {
        $half = $this->stair->width / 2.0;
        $line = $this->stair->line;
        $edges = [];
        foreach (\array_slice($line, 1) as $i => $to) {
            if ($line[$i]->distanceTo($to) < self::NOTHING_MM) {
                throw UnbuildableStair::line();
            }
            $arc = (new Contour([$line[$i], $to], [$this->stair->rises[$i] ?? 0.0]))->arc(0);
            $chord = atan2($to->y - $line[$i]->y, $to->x - $line[$i]->x);
            $edges[] = [$line[$i], $to, $arc, $chord - ($arc->sweep ?? 0.0) / 2.0, $chord + ($arc->sweep ?? 0.0) / 2.0];
        }
        if ([] === $edges) {
            throw UnbuildableStair::line();
        }
        [$run, $from, $all] = [new WalkingLine(), $edges[0][0], 0.0];
        foreach ($edges as $i => [, $to, $arc, , $leaves]) {
            $all += $arc->sweep ?? 0.0;
            $next = $edges[$i + 1] ?? null;
            $turn = null === $next ? 0.0 : self::turn($leaves, $next[3]);
            $all += $turn;
            if (null === $next || abs($turn) < self::STRAIGHT || null !== $arc || null !== $next[2]) {
                if (null !== $next && (null !== $arc || null !== $next[2]) && abs($turn) > self::TANGENT) {
                    throw UnbuildableStair::kink();
                }
                $run->add($from, $to, $arc);
                $from = $to;
                continue;
            }
            if (abs($turn) > self::SHARP) {
                throw UnbuildableStair::sharp();
            }
            $before = $half * tan(abs($turn) / 2.0);
            [$ux, $uy] = [cos($leaves), sin($leaves)];
            [$vx, $vy] = [cos($next[3]), sin($next[3])];
            $left = ($to->x - $from->x) * $ux + ($to->y - $from->y) * $uy - $before;
            if ($left < -self::NOTHING_MM) {
                throw UnbuildableStair::short(-$left);
            }
            if ($left > self::NOTHING_MM) {
                $run->add($from, $to->plus(-$before * $ux, -$before * $uy), null);
            }
            $this->parts[] = $run;
            $this->parts[] = $this->corner($to, [$ux, $uy], [$vx, $vy], $turn, $before);
            [$run, $from] = [new WalkingLine(), $to->plus($before * $vx, $before * $vy)];
        }
        $this->parts[] = $run;

        return $all;
    }

    /**
     * @param array{float, float} $u direction in which the line comes to it
     * @param array{float, float} $v in which it goes on
     *
     * @return Corner
     */
    private function corner(Point $at, array $u, array $v, float $turn, float $before): array
    {
        $half = $this->stair->width / 2.0;
        $side = $turn > 0.0 ? 1.0 : -1.0;
        $inner = [$at->x - $before * $u[0] - $side * $half * $u[1], $at->y - $before * $u[1] + $side * $half * $u[0]];
        $enters = [$at->x - $before * $u[0] + $side * $half * $u[1], $at->y - $before * $u[1] - $side * $half * $u[0]];
        $outer = [$enters[0] + 2.0 * $before * $u[0], $enters[1] + 2.0 * $before * $u[1]];
        $leaves = [$at->x + $before * $v[0] + $side * $half * $v[1], $at->y + $before * $v[1] - $side * $half * $v[0]];
        $round = [$enters, $outer, $leaves];

        return $side > 0.0
            ? ['left' => [$inner, $inner], 'right' => $round, 'going' => 2.0 * $before, 'turn' => $turn]
            : ['left' => $round, 'right' => [$inner, $inner], 'going' => 2.0 * $before, 'turn' => $turn];
    }

    /** @return non-empty-list<Tread> */
    private function treads(): array
    {
        $this->joinLandings();
        $lengths = [];
        $fixed = 0;
        foreach ($this->parts as $i => $part) {
            if ($part instanceof WalkingLine) {
                if ($part->length() > self::NOTHING_MM) {
                    $part->holds($this->stair->width / 2.0);
                    $lengths[$i] = $part->length();
                }
            } else {
                $fixed += StairTurn::Landing === $this->stair->turn ? 1 : $this->stair->winders;
            }
        }
        $free = $this->stair->risers - 1 - $fixed;
        if ($free < \count($lengths) || ([] === $lengths && 0 !== $free)) {
            throw UnbuildableStair::few($fixed + \count($lengths) + 1);
        }
        $counts = array_map(static fn (): int => 1, $lengths);
        for ($k = \count($lengths); $k < $free; ++$k) {
            $goings = array_map(static fn (float $length, int $count): float => $length / $count, $lengths, $counts);
            $widest = array_search(max([0.0, ...$goings]), $goings, true);
            ++$counts[array_keys($lengths)[(int) $widest]];
        }
        $treads = [];
        foreach ($this->parts as $i => $part) {
            if ($part instanceof WalkingLine) {
                array_push($treads, ...isset($lengths[$i]) ? $this->flight($part, $counts[$i], \count($treads)) : []);
            } else {
                array_push($treads, ...$this->turning($part, \count($treads)));
            }
        }

        return [] === $treads ? throw UnbuildableStair::line() : $treads;
    }

    /** Two landings with no room for a flight between them are one. */
    private function joinLandings(): void
    {
        $parts = [];
        foreach ($this->parts as $i => $part) {
            $last = \count($parts) - 1;
            $between = $parts[$last] ?? null;
            $first = $parts[$last - 1] ?? null;
            if (
                StairTurn::Landing === $this->stair->turn && \is_array($part) && \is_array($first)
                && $between instanceof WalkingLine && $between->length() < self::ONE_LANDING_MM
            ) {
                array_splice($parts, $last - 1, 2, [[
                    'left' => [...$first['left'], ...$part['left']],
                    'right' => [...$first['right'], ...$part['right']],
                    'going' => $first['going'] + $between->length() + $part['going'],
                    'turn' => $first['turn'] + $part['turn'],
                ]]);
                continue;
            }
            $parts[] = $part;
        }
        $this->parts = $parts;
    }

    /** @return list<Tread> */
    private function flight(WalkingLine $line, int $count, int $before): array
    {
        $half = $this->stair->width / 2.0;
        $going = $line->length() / $count;
        $treads = [];
        for ($k = 0; $k < $count; ++$k) {
            [$from, $to] = [$k * $going, $k + 1 === $count ? $line->length() : ($k + 1) * $going];
            $corners = $line->corners($from, $to, $half);
            $treads[] = self::tread(
                $before + $k + 1,
                array_map(static fn (float $s): array => $line->at($s, $half), $corners),
                array_map(static fn (float $s): array => $line->at($s, -$half), $corners),
                $going,
                false,
                $line->isStraight($from, $to),
            );
        }

        return $treads;
    }

    /**
     * @param Corner $corner
     *
     * @return list<Tread>
     */
    private function turning(array $corner, int $before): array
    {
        if (StairTurn::Landing === $this->stair->turn) {
            return [self::tread($before + 1, $corner['left'], $corner['right'], $corner['going'], true, false)];
        }
        $isLeft = $corner['turn'] > 0.0;
        $inner = $isLeft ? $corner['left'][0] : $corner['right'][0];
        $outer = $isLeft ? $corner['right'] : $corner['left'];
        $count = $this->stair->winders;
        $start = atan2($outer[0][1] - $inner[1], $outer[0][0] - $inner[0]);
        $far = 4.0 * $this->stair->width / max(0.1, cos($corner['turn'] / 2.0));
        $treads = [];
        $at = [$outer[0], 0];
        for ($k = 1; $k <= $count; ++$k) {
            $angle = $start + $corner['turn'] * $k / $count;
            $ray = [$inner[0] + $far * cos($angle), $inner[1] + $far * sin($angle)];
            $next = [$outer[2], 1];
            foreach ($k < $count ? [0, 1] : [] as $edge) {
                $meets = Segment::crossing($inner, $ray, $outer[$edge], $outer[$edge + 1]);
                if (null !== $meets) {
                    [[$ax, $ay], [$bx, $by]] = [$outer[$edge], $outer[$edge + 1]];
                    $next = [[$ax + $meets[1] * ($bx - $ax), $ay + $meets[1] * ($by - $ay)], $edge];
                    break;
                }
            }
            $round = $at[1] === $next[1] ? [$at[0], $next[0]] : [$at[0], $outer[1], $next[0]];
            $going = abs($corner['turn']) * $this->stair->width / 2.0 / $count;
            $treads[] = $isLeft
                ? self::tread($before + $k, [$inner, $inner], $round, $going, false, false)
                : self::tread($before + $k, $round, [$inner, $inner], $going, false, false);
            $at = $next;
        }

        return $treads;
    }

    /**
     * @param non-empty-list<array{float, float}> $left
     * @param non-empty-list<array{float, float}> $right
     */
    private static function tread(int $number, array $left, array $right, float $going, bool $isLanding, bool $isStraight): Tread
    {
        $ring = [];
        foreach ([...$right, ...array_reverse($left)] as $p) {
            $last = $ring[\count($ring) - 1] ?? null;
            if (null === $last || hypot($p[0] - $last[0], $p[1] - $last[1]) > 1e-6) {
                $ring[] = $p;
            }
        }
        while (\count($ring) > 1 && hypot($ring[0][0] - $ring[\count($ring) - 1][0], $ring[0][1] - $ring[\count($ring) - 1][1]) <= 1e-6) {
            array_pop($ring);
        }
        \assert([] !== $ring);

        return new Tread($number, $ring, $left, $right, $going, $isLanding, $isStraight);
    }

    /** @return float radians, counter-clockwise, −π to π */
    private static function turn(float $from, float $to): float
    {
        return atan2(sin($to - $from), cos($to - $from));
    }
}
