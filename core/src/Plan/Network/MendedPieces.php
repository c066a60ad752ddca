<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Network;

use Plinth\Core\Geometry\Segment;
use Plinth\Core\Plan\Model\Wall;

/**
 * A plan's pieces with every free end joined to every wall that it could be meant to meet, by a straight mend; a corner of two walls as
 * well, to those that it all but touches.
 *
 * @phpstan-type Neck array{array{float, float}, array{float, float}}
 * @phpstan-type Mend array{gap: float, neck: Neck, walls: array{string, string}, end: 'from'|'to'|null}
 */
final class MendedPieces implements PieceSource
{
    /** A gap wider than this is a missing wall, not a leak: the widest common door is about half of it. */
    private const WIDEST_GAP_MM = 2500.0;
    /** A corner is drawn on to nothing; between it and what lies nearer something was traced short. */
    private const CORNER_GAP_MM = 400.0;
    /** So far from its end a mend may reach: the gap and half of thick walls. */
    private const REACH_MM = self::WIDEST_GAP_MM + 1000.0;

    /** cosine of three degrees */
    private const SAME_WAY = 0.99863;

    /** @var array<string, Mend> by the key of its piece */
    public array $mends = [];

    /** @var array<string, list<Piece>> end of a piece → its mends */
    private array $fromEnd = [];

    public function __construct(private readonly PieceSource $pieces, private readonly Network $network)
    {
    }

    public function near(float $x1, float $y1, float $x2, float $y2): array
    {
        $r = self::REACH_MM;
        $near = [];
        foreach ($this->pieces->near($x1, $y1, $x2, $y2) as $piece) {
            $near[$piece->key] = $piece;
        }
        foreach ($this->pieces->near($x1 - $r, $y1 - $r, $x2 + $r, $y2 + $r) as $piece) {
            foreach ([$piece->a, $piece->b] as $side => [$x, $y]) {
                if ($x >= $x1 - $r && $x <= $x2 + $r && $y >= $y1 - $r && $y <= $y2 + $r) {
                    foreach ($this->mendsFrom($piece, $side) as $mend) {
                        $near[$mend->key] = $mend;
                    }
                }
            }
        }

        return array_values($near);
    }

    public function farRight(): float
    {
        return $this->pieces->farRight();
    }

    /** @return list<Piece> */
    private function mendsFrom(Piece $piece, int $side): array
    {
        $key = $piece->ends[$side];
        if (isset($this->fromEnd[$key])) {
            return $this->fromEnd[$key];
        }
        $this->fromEnd[$key] = [];
        $isFree = $this->network->isFree($piece, $side);
        if (!$isFree && !$this->network->isCorner($piece, $side)) {
            return [];
        }
        $widest = $isFree ? self::WIDEST_GAP_MM : self::CORNER_GAP_MM;
        [$x, $y] = $this->network->nodes[$this->network->end($piece, $side)];
        $r = self::REACH_MM;
        $cap = self::cap($piece, $side, [$x, $y]);
        $best = [];
        foreach ($this->pieces->near($x - $r, $y - $r, $x + $r, $y + $r) as $host) {
            if ($host->wall === $piece->wall) {
                continue;
            }
            [$px, $py] = Segment::nearest([$x, $y], $host->a, $host->b);
            [$p, $q, $gap] = Segment::shortestWay($cap, self::body($host));
            $away = hypot($px - $x, $py - $y);
            if ($gap <= $widest && $away > Wall::JOIN_MM && $away <= $r && $gap < ($best[$host->wall][0] ?? \INF)) {
                $best[$host->wall] = [$gap, [$p, $q], [$px, $py]];
            }
        }
        foreach (self::first($best, [$x, $y]) as $wall => [$gap, $neck, $to]) {
            $name = "~mend/$key/$wall";
            $end = 0 === $side ? 'from' : 'to';
            $this->mends[$name] = ['gap' => $gap, 'neck' => $neck, 'walls' => [$piece->wall, $wall], 'end' => $isFree ? $end : null];
            $this->fromEnd[$key][] = new Piece($name, $name, [$x, $y], $to, 0.0);
        }

        return $this->fromEnd[$key];
    }

    /**
     * Of those that lie behind each other the nearest: what stands in the way closes it.
     *
     * @param array<string, array{float, Neck, array{float, float}}> $best gap, neck and place on each wall
     * @param array{float, float} $from
     *
     * @return array<string, array{float, Neck, array{float, float}}>
     */
    private static function first(array $best, array $from): array
    {
        $away = array_map(static fn (array $mend): array => [$mend[2][0] - $from[0], $mend[2][1] - $from[1]], $best);
        $kept = [];
        foreach ($best as $wall => $mend) {
            [$dx, $dy] = $away[$wall];
            $length = hypot($dx, $dy);
            foreach ($away as $other => [$ox, $oy]) {
                $nearer = hypot($ox, $oy);
                $cosine = ($dx * $ox + $dy * $oy) / ($length * $nearer);
                // Of two that lie on one spot the one whose name comes first.
                if ($cosine > self::SAME_WAY && [$nearer, $other] < [$length, $wall]) {
                    continue 2;
                }
            }
            $kept[$wall] = $mend;
        }

        return $kept;
    }

    /**
     * Both corners of a free end.
     *
     * @param array{float, float} $at
     *
     * @return list<array{float, float}>
     */
    private static function cap(Piece $piece, int $side, array $at): array
    {
        $body = self::body($piece);
        [$right, $left] = 0 === $side ? [$body[0], $body[3]] : [$body[1], $body[2]];
        // Where the end was drawn on, its corners went with it.
        [$ex, $ey] = 0 === $side ? $piece->a : $piece->b;

        return [[$right[0] + $at[0] - $ex, $right[1] + $at[1] - $ey], [$left[0] + $at[0] - $ex, $left[1] + $at[1] - $ey]];
    }

    /** @return list<array{float, float}> counter-clockwise */
    private static function body(Piece $piece): array
    {
        [$ax, $ay] = $piece->a;
        [$bx, $by] = $piece->b;
        $length = hypot($bx - $ax, $by - $ay);
        $nx = -($by - $ay) / $length * $piece->half;
        $ny = ($bx - $ax) / $length * $piece->half;

        return [[$ax - $nx, $ay - $ny], [$bx - $nx, $by - $ny], [$bx + $nx, $by + $ny], [$ax + $nx, $ay + $ny]];
    }
}
