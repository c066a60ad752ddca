<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Editing;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Segment;
use Plinth\Core\Geometry\Tolerance;
use Plinth\Core\Plan\Model\Wall;

/**
 * Lays new walls down so that they join each other and what is traced already: an end near a node takes that node, one near another
 * wall's body goes along its own direction onto that wall's centre line.
 */
final class Joining
{
    /** An end this near to a node is that node; of two new ends this near to each other one is made. mm */
    private const NODE_MM = 60.0;
    private const NEW_NODE_MM = 35.0;
    /** so far beyond the face of a wall an end still joins it, mm */
    private const BEYOND_FACE_MM = 60.0;

    /** @var array<string, Point> nodes that have to be made, by a name of their own */
    private array $made = [];
    /** @var array<string, int> how many new ends use each of them */
    private array $uses = [];

    /**
     * @param list<Wall> $there walls that are traced
     * @param array<string, Point> $nodes theirs, by id
     */
    private function __construct(private readonly array $there, private readonly array $nodes)
    {
    }

    /**
     * Nodes to make, and for each new wall the names of its two nodes, made or there; a wall that would have no length is left out.
     *
     * @param list<Wall> $new
     * @param list<Wall> $there
     * @param array<string, Point> $nodes
     *
     * @return array{nodes: array<string, Point>, walls: array<int, array{string, string}>}
     */
    public static function of(array $new, array $there, array $nodes): array
    {
        $joining = new self($there, $nodes);
        $ends = [];
        foreach ($new as $i => $wall) {
            $ends[$i] = [$joining->end($wall, $wall->from, $wall->to), $joining->end($wall, $wall->to, $wall->from)];
        }
        $joining->ontoNew($new, $ends);
        $walls = [];
        foreach ($ends as $i => [$a, $b]) {
            if ($a !== $b && $joining->at($a)->distanceTo($joining->at($b)) > Wall::JOIN_MM) {
                $walls[$i] = [$a, $b];
            }
        }
        $used = array_merge(...array_values($walls), ...[[]]);

        return [
            'nodes' => array_filter($joining->made, static fn (string $name): bool => \in_array($name, $used, true), \ARRAY_FILTER_USE_KEY),
            'walls' => $walls,
        ];
    }

    /**
     * Where an opening lies along its wall once that was laid: its place in the building stays though the wall's beginning went to a
     * corner.
     *
     * @param Wall $wall as it was wanted
     * @param Wall $laid as it lies
     *
     * @return float|null mm from the wall's beginning; null where the opening would reach beyond its ends
     */
    public static function offsetOn(Wall $laid, Wall $wall, float $offset, float $width): ?float
    {
        $at = $wall->at($offset);
        $offset = $laid->along($at->x, $at->y);

        return $offset < 0.0 || $offset + $width > $laid->length() ? null : $offset;
    }

    private function at(string $name): Point
    {
        return $this->made[$name] ?? $this->nodes[$name];
    }

    private function end(Wall $wall, Point $end, Point $other): string
    {
        $best = null;
        $nearest = self::NODE_MM;
        foreach ($this->nodes as $name => $p) {
            if ($p->distanceTo($end) <= $nearest) {
                [$best, $nearest] = [$name, $p->distanceTo($end)];
            }
        }
        if (null !== $best) {
            return $best;
        }
        $end = $this->onto($wall, $end, $other, $this->there) ?? $end;
        foreach ($this->made as $name => $p) {
            if ($p->distanceTo($end) <= self::NEW_NODE_MM) {
                $this->uses[$name] = ($this->uses[$name] ?? 0) + 1;

                return $name;
            }
        }
        $name = 'new '.\count($this->made);
        $this->made[$name] = $end;
        $this->uses[$name] = 1;

        return $name;
    }

    /**
     * Where an end meets the nearest of some walls.
     *
     * @param list<Wall> $walls
     */
    private function onto(Wall $wall, Point $end, Point $other, array $walls): ?Point
    {
        $length = max(Tolerance::ROUND_OFF_MM, $end->distanceTo($other));
        [$ux, $uy] = [($end->x - $other->x) / $length, ($end->y - $other->y) / $length];
        $best = null;
        $nearest = \INF;
        foreach ($walls as $host) {
            if (null !== $host->arc()) {
                continue;
            }
            $l = max(Tolerance::ROUND_OFF_MM, $host->length());
            [$vx, $vy] = [($host->to->x - $host->from->x) / $l, ($host->to->y - $host->from->y) / $l];
            $sine = $ux * $vy - $uy * $vx;
            if (abs($sine) < Tolerance::LANDING_SINE) {
                continue;
            }
            $t = (($host->from->x - $end->x) * $vy - ($host->from->y - $end->y) * $vx) / $sine;
            $meet = $end->plus($t * $ux, $t * $uy);
            [$x, $y] = Segment::nearest([$meet->x, $meet->y], [$host->from->x, $host->from->y], [$host->to->x, $host->to->y]);
            $isOnHost = hypot($x - $meet->x, $y - $meet->y) <= $wall->thickness / 2.0 + 1.0;
            if (
                $isOnHost
                && abs($t) <= ($host->thickness / 2.0 + self::BEYOND_FACE_MM) / abs($sine)
                && abs($t) < $nearest
                && $t > -0.5 * $length
            ) {
                [$best, $nearest] = [$meet, abs($t)];
            }
        }

        return $best;
    }

    /**
     * Ends that nothing shares, beside another new wall, go onto its centre line as that lies once all corners are made.
     *
     * @param list<Wall> $new
     * @param array<int, array{string, string}> $ends
     */
    private function ontoNew(array $new, array $ends): void
    {
        $laid = [];
        foreach ($ends as $i => [$a, $b]) {
            $laid[$i] = $new[$i]->between($this->at($a), $this->at($b));
        }
        foreach ($ends as $i => [$a, $b]) {
            foreach ([[$a, $b], [$b, $a]] as [$name, $other]) {
                if (isset($this->made[$name]) && 1 === $this->uses[$name]) {
                    $others = array_values(
                        array_filter(
                            $laid,
                            static fn (int $k): bool => $k !== $i && !\in_array($name, $ends[$k], true),
                            \ARRAY_FILTER_USE_KEY,
                        ),
                    );
                    $this->made[$name] = $this->onto($new[$i], $this->made[$name], $this->at($other), $others) ?? $this->made[$name];
                }
            }
        }
    }

    /**
     * Whether most of a wall lies in the bodies of walls that run the same way: it is traced already.
     *
     * @param list<Wall> $there
     */
    public static function isTraced(Wall $wall, array $there): bool
    {
        $length = $wall->length();
        $on = 0;
        $looks = 20;
        for ($k = 0; $k < $looks; ++$k) {
            $p = $wall->at($length * ($k + 0.5) / $looks);
            [$ux, $uy] = self::way($wall, $p);
            foreach ($there as $host) {
                [$vx, $vy] = self::way($host, $p);
                $near = $host->nearest($p);
                if (abs($ux * $vy - $uy * $vx) < Tolerance::LANDING_SINE && $near->distanceTo($p) <= $host->thickness / 2.0 + 20.0) {
                    ++$on;
                    break;
                }
            }
        }

        return $on > 0.6 * $looks;
    }

    /** @return array{float, float} unit vector along a wall, beside a place */
    private static function way(Wall $wall, Point $at): array
    {
        $arc = $wall->arc();
        [$dx, $dy] = null === $arc
            ? [$wall->to->x - $wall->from->x, $wall->to->y - $wall->from->y]
            : [$at->y - $arc->centre->y, $arc->centre->x - $at->x];
        $length = max(Tolerance::ROUND_OFF_MM, hypot($dx, $dy));

        return [$dx / $length, $dy / $length];
    }
}
