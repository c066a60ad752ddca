<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/** A line that closes: corners in their order, and from each a straight edge or an arc to the next. */
final readonly class Contour
{
    /** How far straight pieces may lie off an arc where it is drawn, mm. */
    private const OFF_MM = 0.05;
    private const MOST_PIECES = 256;
    /** pieces of all arcs together, where crossings are looked for: what that costs grows with their square */
    private const MOST_CROSSED = 1500;

    /**
     * @param non-empty-list<Point> $corners mm
     * @param list<float> $rises of the edge that begins at each corner over its chord, mm, positive to its left; 0 or none for a
     *                           straight one
     */
    public function __construct(public array $corners, public array $rises = [])
    {
    }

    /** @return float mm², positive where it runs counter-clockwise */
    public function area(): float
    {
        $area = Polygon::area($this->chords());
        foreach (array_keys($this->corners) as $edge) {
            $arc = $this->arc($edge);
            if (null !== $arc) {
                // What rises to the right of an edge is added to what lies on its left. Any textbook of mensuration has the segment.
                $turn = abs($arc->sweep);
                $area += ($arc->sweep > 0.0 ? 0.5 : -0.5) * $arc->radius ** 2 * ($turn - sin($turn));
            }
        }

        return $area;
    }

    /** @return float mm all round */
    public function length(): float
    {
        $length = 0.0;
        foreach ($this->corners as $edge => $corner) {
            $length += $this->arc($edge)?->length() ?? $corner->distanceTo($this->end($edge));
        }

        return $length;
    }

    /** @return array{float, float, float, float} xmin, ymin, xmax, ymax */
    public function bounds(): array
    {
        $reached = $this->chords();
        foreach (array_keys($this->corners) as $edge) {
            $arc = $this->arc($edge);
            // An arc reaches farthest at its ends, or where it passes a quarter of its circle.
            for ($quarter = 0; null !== $arc && $quarter < 4; ++$quarter) {
                $part = fmod($quarter * \M_PI_2 - $arc->start, 2.0 * \M_PI);
                $ahead = $arc->sweep > 0.0 ? fmod($part + 2.0 * \M_PI, 2.0 * \M_PI) : -fmod(2.0 * \M_PI - $part, 2.0 * \M_PI);
                $part = $ahead / $arc->sweep;
                if ($part <= 1.0) {
                    $reached[] = $arc->at($part)->toArray();
                }
            }
        }

        return Polygon::bounds($reached);
    }

    /** @return array{int, int}|null the first two edges that cross, by the corners where they begin */
    public function selfCrossing(): ?array
    {
        $n = \count($this->corners);
        $bowed = \count(array_filter($this->rises, static fn (float $r): bool => abs($r) >= Arc::LEAST_RISE_MM));
        $most = max(2, min(64, intdiv(self::MOST_CROSSED, max(1, $bowed))));
        $pieces = array_map(fn (int $edge): array => $this->pieces($edge, $most), array_keys($this->corners));
        $boxes = array_map(
            static fn (array $all): array => Polygon::bounds([$all[0][0], ...array_column($all, 1)]),
            $pieces,
        );
        foreach ($pieces as $one => $here) {
            for ($other = $one; $other < $n; ++$other) {
                if (!self::overlap($boxes[$one], $boxes[$other])) {
                    continue;
                }
                foreach ($here as $i => [$a, $b]) {
                    foreach ($pieces[$other] as $k => [$c, $d]) {
                        // What follows each other shares a point.
                        $follows = $one === $other ? $k <= $i + 1
                            : ($other === $one + 1 && 0 === $k && \count($here) - 1 === $i)
                                || (0 === $one && $other === $n - 1 && 0 === $i && \count($pieces[$other]) - 1 === $k);
                        if (!$follows && null !== Segment::crossing($a, $b, $c, $d)) {
                            return [$one, $other];
                        }
                    }
                }
            }
        }

        return null;
    }

    /** The arc that begins at a corner; null for a straight edge. */
    public function arc(int $edge): ?Arc
    {
        $rise = $this->rises[$edge] ?? 0.0;
        [$from, $to] = [$this->corners[$edge], $this->end($edge)];

        return abs($rise) < Arc::LEAST_RISE_MM || $from->distanceTo($to) < Arc::LEAST_RISE_MM ? null : new Arc($from, $to, $rise);
    }

    /**
     * An edge as straight pieces.
     *
     * @param int $most how many
     *
     * @return non-empty-list<array{array{float, float}, array{float, float}}>
     */
    public function pieces(int $edge, int $most = self::MOST_PIECES): array
    {
        $arc = $this->arc($edge);
        $from = $this->corners[$edge]->toArray();
        $to = $this->end($edge)->toArray();
        if (null === $arc) {
            return [[$from, $to]];
        }
        $count = min($most, max(2, $arc->chords(self::OFF_MM)));
        $pieces = [];
        for ($i = 1; $i < $count; ++$i) {
            $next = $arc->at($i / $count)->toArray();
            $pieces[] = [$from, $next];
            $from = $next;
        }
        $pieces[] = [$from, $to];

        return $pieces;
    }

    /** @return non-empty-list<array{float, float}> all round it, arcs as straight pieces */
    public function points(): array
    {
        $points = [];
        foreach (array_keys($this->corners) as $edge) {
            foreach ($this->pieces($edge) as [$from]) {
                $points[] = $from;
            }
        }

        return $points;
    }

    /**
     * @param array{float, float, float, float} $a
     * @param array{float, float, float, float} $b
     */
    private static function overlap(array $a, array $b): bool
    {
        return $a[0] <= $b[2] && $b[0] <= $a[2] && $a[1] <= $b[3] && $b[1] <= $a[3];
    }

    private function end(int $edge): Point
    {
        return $this->corners[($edge + 1) % \count($this->corners)];
    }

    /** @return non-empty-list<array{float, float}> */
    private function chords(): array
    {
        return array_map(static fn (Point $p): array => $p->toArray(), $this->corners);
    }
}
