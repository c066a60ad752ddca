<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Bodies\Mesh;

/**
 * The closed surface of cells that lie beside each other in plan.
 *
 * Corners of cells that lie on each other are one place, and where one lies on another cell's edge, that is cut there. About each place
 * all heights at which anything begins or ends are gathered. Between two cells the wall that stands is what of one the other leaves open;
 * its corners are taken from those heights, so that every edge is met by its neighbours exactly, whatever the planes do.
 *
 * @internal
 *
 * @phpstan-type Strip array{int, int, int, int} numbers of heights: bottom and top at an edge's start, bottom and top at its end
 */
final class Stack
{
    /** Corners nearer than this are one; far below what a body shows, far above what doubles lose a thousand kilometres out. */
    private const NEAR_MM = 1e-3;
    /** Heights at one place nearer than this are one: planes that meet there were worked out from corners that were rounded. */
    private const SAME_HEIGHT_MM = 2e-3;
    private const BUCKET_MM = 1.0;
    /** A single cell with so few corners touches itself nowhere. */
    private const SIMPLE = 12;

    /** @var list<array{float, float}> */
    private array $places = [];
    /** @var array<string, list<int>> */
    private array $buckets = [];
    /** @var list<list<list<int>>> cell → rings → places */
    private array $rings = [];
    /** @var list<list<float>> place → heights from below */
    private array $heights = [];
    /** @var list<array{float, float, float}> */
    private array $vertices = [];
    /** @var array<int, array<int, int>> place → number of height → vertex */
    private array $numbers = [];
    /** @var list<non-empty-list<list<int>>> */
    private array $faces = [];

    /** @param list<Cell> $cells */
    private function __construct(private readonly array $cells)
    {
    }

    /**
     * @param list<Cell> $cells that share nothing but their edges
     *
     * @return Mesh|null null where nothing of them is solid
     */
    public static function mesh(array $cells): ?Mesh
    {
        $cells = array_values(array_filter($cells, static fn (Cell $c): bool => [] !== $c->spans));
        $stack = new self($cells);
        $stack->place();
        if (\count($cells) > 1 || \count($stack->places) > self::SIMPLE) {
            $stack->meetEdges();
        }
        $stack->cutWherePlanesCross();
        $stack->gatherHeights();
        $stack->levels();
        $stack->sides();

        return [] === $stack->faces ? null : new Mesh($stack->vertices, $stack->faces);
    }

    private function place(): void
    {
        foreach ($this->cells as $cell) {
            $rings = [];
            foreach ($cell->rings as $ring) {
                $rings[] = self::tidy(array_map(fn (array $p): int => $this->number($p[0], $p[1]), $ring));
            }
            $this->rings[] = array_values(array_filter($rings, static fn (array $r): bool => \count($r) > 2));
        }
    }

    private function number(float $x, float $y): int
    {
        [$i, $j] = [$x / self::BUCKET_MM, $y / self::BUCKET_MM];
        [$low, $high] = [self::NEAR_MM / self::BUCKET_MM, 1.0 - self::NEAR_MM / self::BUCKET_MM];
        [$fi, $fj] = [floor($i), floor($j)];
        $near = ["$fi $fj"];
        [$si, $sj] = [$i - $fi < $low ? -1.0 : ($i - $fi > $high ? 1.0 : 0.0), $j - $fj < $low ? -1.0 : ($j - $fj > $high ? 1.0 : 0.0)];
        foreach ([[$si, 0.0], [0.0, $sj], [$si, $sj]] as [$di, $dj]) {
            $near[] = ($fi + $di).' '.($fj + $dj);
        }
        foreach ($near as $bucket) {
            foreach ($this->buckets[$bucket] ?? [] as $n) {
                if (abs($this->places[$n][0] - $x) < self::NEAR_MM && abs($this->places[$n][1] - $y) < self::NEAR_MM) {
                    return $n;
                }
            }
        }
        $this->places[] = [$x, $y];
        $this->buckets[$near[0]][] = $n = \count($this->places) - 1;

        return $n;
    }

    /** Cuts edges where corners of others lie on them. */
    private function meetEdges(): void
    {
        // From left to right, so that only places beside an edge are held against it.
        $order = array_keys($this->places);
        usort($order, fn (int $a, int $b): int => $this->places[$a][0] <=> $this->places[$b][0]);
        $xs = array_map(fn (int $n): float => $this->places[$n][0], $order);
        foreach ($this->rings as $c => $rings) {
            foreach ($rings as $r => $ring) {
                $cut = [];
                foreach ($ring as $i => $from) {
                    $to = $ring[($i + 1) % \count($ring)];
                    $cut[] = $from;
                    array_push($cut, ...$this->between($from, $to, $order, $xs));
                }
                $this->rings[$c][$r] = $cut;
            }
        }
    }

    /**
     * @param list<int> $order of places along x
     * @param list<float> $xs where those lie
     *
     * @return list<int> places on an edge, from its start
     */
    private function between(int $from, int $to, array $order, array $xs): array
    {
        [[$ax, $ay], [$bx, $by]] = [$this->places[$from], $this->places[$to]];
        [$dx, $dy] = [$bx - $ax, $by - $ay];
        $length = hypot($dx, $dy);
        $least = min($ax, $bx) - self::NEAR_MM;
        $most = max($ax, $bx) + self::NEAR_MM;
        [$low, $high] = [0, \count($xs)];
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if ($xs[$middle] < $least) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }
        $on = [];
        for ($n = \count($xs); $low < $n && $xs[$low] <= $most; ++$low) {
            $k = $order[$low];
            [$px, $py] = [$xs[$low] - $ax, $this->places[$k][1] - $ay];
            $along = ($px * $dx + $py * $dy) / $length;
            if ($k !== $from && $k !== $to && $along > 0.0 && $along < $length && abs($px * $dy - $py * $dx) < self::NEAR_MM * $length) {
                $on[$k] = $along;
            }
        }
        asort($on);

        return array_keys($on);
    }

    /** Planes of two cells may pass each other along the edge between them: it is cut there. */
    private function cutWherePlanesCross(): void
    {
        $sloping = [];
        foreach ($this->cells as $c => $cell) {
            foreach ($cell->spans as [$bottom, $top]) {
                $sloping[$c] = ($sloping[$c] ?? false) || !$bottom->isLevel() || !$top->isLevel();
            }
        }
        if (!\in_array(true, $sloping, true)) {
            return;
        }
        $cuts = [];
        foreach ($this->edges() as [$from, $to, $left, $right]) {
            if (null === $right || (!$sloping[$left] && !$sloping[$right])) {
                continue;
            }
            $parts = $this->crossings($from, $to, [...$this->cells[$left]->spans, ...$this->cells[$right]->spans]);
            foreach ($parts as $part) {
                [[$ax, $ay], [$bx, $by]] = [$this->places[$from], $this->places[$to]];
                $cuts[min($from, $to)][max($from, $to)][] = $this->number($ax + $part * ($bx - $ax), $ay + $part * ($by - $ay));
            }
        }
        foreach ([] === $cuts ? [] : $this->rings as $c => $rings) {
            foreach ($rings as $r => $ring) {
                $cut = [];
                foreach ($ring as $i => $from) {
                    $to = $ring[($i + 1) % \count($ring)];
                    $cut[] = $from;
                    $on = $cuts[min($from, $to)][max($from, $to)] ?? [];
                    [$x, $y] = $this->places[$from];
                    usort(
                        $on,
                        fn (int $a, int $b): int => hypot($this->places[$a][0] - $x, $this->places[$a][1] - $y)
                            <=> hypot($this->places[$b][0] - $x, $this->places[$b][1] - $y),
                    );
                    array_push($cut, ...$on);
                }
                $this->rings[$c][$r] = self::tidy($cut);
            }
        }
    }

    /**
     * @param list<array{Plane, Plane}> $spans
     *
     * @return list<float> parts of the way from start to end where two of the planes pass each other
     */
    private function crossings(int $from, int $to, array $spans): array
    {
        $parts = [];
        $planes = array_merge(...$spans);
        $starts = array_map(fn (Plane $p): float => $p->at(...$this->places[$from]), $planes);
        $ends = array_map(fn (Plane $p): float => $p->at(...$this->places[$to]), $planes);
        foreach ($planes as $a => $plane) {
            for ($b = 0; $b < $a; ++$b) {
                [$s, $e] = [$starts[$a] - $starts[$b], $ends[$a] - $ends[$b]];
                if (($s > self::SAME_HEIGHT_MM && $e < -self::SAME_HEIGHT_MM) || ($s < -self::SAME_HEIGHT_MM && $e > self::SAME_HEIGHT_MM)) {
                    $parts[] = $s / ($s - $e);
                }
            }
        }

        return $parts;
    }

    /** @return list<array{int, int, int, int|null}> start, end, and the cells to the left and right; each once, with a cell to the left */
    private function edges(): array
    {
        $left = [];
        foreach ($this->rings as $c => $rings) {
            foreach ($rings as $ring) {
                foreach ($ring as $i => $to) {
                    $left[$ring[$i > 0 ? $i - 1 : \count($ring) - 1]][$to] = $c;
                }
            }
        }
        $edges = [];
        foreach ($left as $from => $ends) {
            foreach ($ends as $to => $c) {
                $right = $left[$to][$from] ?? null;
                if (null === $right || $from < $to) {
                    $edges[] = [$from, $to, $c, $right];
                }
            }
        }

        return $edges;
    }

    private function gatherHeights(): void
    {
        $all = array_fill(0, \count($this->places), []);
        foreach ($this->cells as $c => $cell) {
            foreach ($this->rings[$c] as $ring) {
                foreach ($ring as $n) {
                    foreach ($cell->spans as [$bottom, $top]) {
                        $all[$n][] = $bottom->at(...$this->places[$n]);
                        $all[$n][] = $top->at(...$this->places[$n]);
                    }
                }
            }
        }
        foreach ($all as $n => $heights) {
            sort($heights);
            $kept = [];
            foreach ($heights as $z) {
                if ([] === $kept || $z - $kept[\count($kept) - 1] > self::SAME_HEIGHT_MM) {
                    $kept[] = $z;
                }
            }
            $this->heights[$n] = $kept;
        }
    }

    /** Number of the height at which a plane passes a place. */
    private function height(Plane $plane, int $place): int
    {
        $z = $plane->at(...$this->places[$place]);
        $k = 0;
        foreach ($this->heights[$place] as $n => $height) {
            if ($height > $z) {
                break;
            }
            $k = $n;
        }

        return $k;
    }

    private function vertex(int $place, int $height): int
    {
        if (!isset($this->numbers[$place][$height])) {
            $this->numbers[$place][$height] = \count($this->vertices);
            $this->vertices[] = [$this->places[$place][0], $this->places[$place][1], $this->heights[$place][$height]];
        }

        return $this->numbers[$place][$height];
    }

    /** What lies above and below. */
    private function levels(): void
    {
        foreach ($this->cells as $c => $cell) {
            foreach ($cell->spans as [$bottom, $top]) {
                [$above, $below, $isSolid] = [[], [], false];
                foreach ($this->rings[$c] as $ring) {
                    [$upper, $lower] = [[], []];
                    foreach ($ring as $n) {
                        [$b, $t] = [$this->height($bottom, $n), $this->height($top, $n)];
                        $isSolid = $isSolid || $t > $b;
                        $upper[] = $this->vertex($n, $t);
                        $lower[] = $this->vertex($n, $b);
                    }
                    $above[] = $upper;
                    $below[] = array_reverse($lower);
                }
                if ($isSolid) {
                    \assert([] !== $above && [] !== $below);
                    $this->faces[] = $above;
                    $this->faces[] = $below;
                }
            }
        }
    }

    /** What stands between cells, and round all of them. */
    private function sides(): void
    {
        foreach ($this->edges() as [$from, $to, $left, $right]) {
            $here = $this->strips($this->cells[$left], $from, $to);
            $there = null === $right ? [] : $this->strips($this->cells[$right], $from, $to);
            $lines = [];
            foreach ([...$here, ...$there] as [$b, $t, $c, $u]) {
                $lines["$b $c"] = [$b, $c];
                $lines["$t $u"] = [$t, $u];
            }
            // No two pass each other: in the middle as at either end.
            usort($lines, static fn (array $a, array $b): int => $a[0] + $a[1] <=> $b[0] + $b[1]);
            $begun = null;
            $solid = 0;
            for ($n = 0, $last = \count($lines) - 1; $n <= $last; ++$n) {
                $next = $n < $last ? self::isSolid($here, $lines[$n], $lines[$n + 1]) - self::isSolid($there, $lines[$n], $lines[$n + 1]) : 0;
                if ($next !== $solid) {
                    if (null !== $begun && 0 !== $solid) {
                        $this->stand($from, $to, $begun, $lines[$n], $solid > 0);
                    }
                    [$begun, $solid] = [$lines[$n], $next];
                }
            }
        }
    }

    /** @return list<Strip> */
    private function strips(Cell $cell, int $from, int $to): array
    {
        $strips = [];
        foreach ($cell->spans as [$bottom, $top]) {
            $strip = [$this->height($bottom, $from), $this->height($top, $from), $this->height($bottom, $to), $this->height($top, $to)];
            if ($strip[0] !== $strip[1] || $strip[2] !== $strip[3]) {
                $strips[] = $strip;
            }
        }

        return $strips;
    }

    /**
     * @param list<Strip> $strips
     * @param array{int, int} $lower
     * @param array{int, int} $upper
     */
    private static function isSolid(array $strips, array $lower, array $upper): int
    {
        foreach ($strips as [$b, $t, $c, $u]) {
            if ($b <= $lower[0] && $c <= $lower[1] && $t >= $upper[0] && $u >= $upper[1]) {
                return 1;
            }
        }

        return 0;
    }

    /**
     * @param array{int, int} $lower
     * @param array{int, int} $upper
     * @param bool $isLeft whether what is solid lies to the left of the edge
     */
    private function stand(int $from, int $to, array $lower, array $upper, bool $isLeft): void
    {
        $ring = [];
        for ($k = $lower[1]; $k <= $upper[1]; ++$k) {
            $ring[] = $this->vertex($to, $k);
        }
        for ($k = $upper[0]; $k >= $lower[0]; --$k) {
            $ring[] = $this->vertex($from, $k);
        }
        $this->faces[] = [$isLeft ? $ring : array_reverse($ring)];
    }

    /**
     * @param list<int> $ring
     *
     * @return list<int> without what follows itself
     */
    private static function tidy(array $ring): array
    {
        $tidy = [];
        foreach ($ring as $n) {
            if ([] === $tidy || $tidy[\count($tidy) - 1] !== $n) {
                $tidy[] = $n;
            }
        }
        while (\count($tidy) > 1 && $tidy[0] === $tidy[\count($tidy) - 1]) {
            array_pop($tidy);
        }

        return $tidy;
    }
}
