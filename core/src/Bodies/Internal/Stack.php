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
 * A strip is a span over an edge, by the numbers of its heights: bottom and top at its start, bottom and top at its end.
 *
 * @phpstan-type Strip array{int, int, int, int}
 */
final class Stack
{
    /** Corners nearer than this are one; far below what a body shows, far above what doubles lose a thousand kilometres out. */
    private const NEAR_MM = 1e-3;
    /** Heights at one place nearer than this are one: planes that meet there were worked out from corners that were rounded. */
    private const SAME_HEIGHT_MM = 2e-3;
    private const BUCKET_MM = 1.0;
    private const RIM = self::NEAR_MM / self::BUCKET_MM;
    private const MOST_HEIGHTS = 1 << 20;
    /** So few places are gone through faster than sought. */
    private const FEW = 24;

    /** @var list<array{float, float}> */
    private array $places = [];
    /** @var array<int, array<int, list<int>>> */
    private array $buckets = [];
    /** @var list<list<list<int>>> cell → rings → places */
    private array $rings = [];
    /** @var array<int, list<float>> place → heights from below */
    private array $heights = [];
    /** @var array<int, array<int, list<int>>> cell → place → numbers of the heights of its spans, bottom and top of each */
    private array $spans = [];
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
        if (1 === \count($cells) && null !== ($prism = self::prism($cells[0]))) {
            return $prism;
        }
        $stack = new self($cells);
        $stack->place();
        $stack->meetEdges();
        $stack->cutWherePlanesCross();
        $stack->gatherHeights();
        $stack->levels();
        $stack->sides();

        return [] === $stack->faces ? null : new Mesh($stack->vertices, $stack->faces);
    }

    /** What stands on a convex ring between two levels: most of what there is. */
    private static function prism(Cell $cell): ?Mesh
    {
        [$ring, [$bottom, $top]] = [$cell->rings[0], $cell->spans[0]];
        $n = \count($ring);
        $isOne = 1 === \count($cell->rings) && 1 === \count($cell->spans);
        if (!$isOne || !$bottom->isLevel() || !$top->isLevel() || $top->z - $bottom->z <= self::SAME_HEIGHT_MM) {
            return null;
        }
        [[$ax, $ay], [$bx, $by]] = [$ring[$n - 2], $ring[$n - 1]];
        $vertices = [];
        foreach ($ring as [$cx, $cy]) {
            if (abs($cx - $bx) + abs($cy - $by) < 2.0 * self::NEAR_MM || ($bx - $ax) * ($cy - $by) - ($by - $ay) * ($cx - $bx) < 0.0) {
                return null;
            }
            [$ax, $ay, $bx, $by] = [$bx, $by, $cx, $cy];
            $vertices[] = [$cx, $cy, $bottom->z];
            $vertices[] = [$cx, $cy, $top->z];
        }
        $faces = [[range(1, 2 * $n - 1, 2)], [range(2 * $n - 2, 0, -2)]];
        for ($i = 0; $i < $n; ++$i) {
            $k = $i + 1 < $n ? $i + 1 : 0;
            $faces[] = [[2 * $i, 2 * $k, 2 * $k + 1, 2 * $i + 1]];
        }

        return new Mesh($vertices, $faces);
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
        [$fi, $fj] = [(int) floor($i), (int) floor($j)];
        [$u, $v] = [$i - $fi, $j - $fj];
        // Near a bucket's side it may be known in the next one.
        [$si, $sj] = [$u < self::RIM ? -1 : ($u > 1.0 - self::RIM ? 1 : 0), $v < self::RIM ? -1 : ($v > 1.0 - self::RIM ? 1 : 0)];
        $known = $this->knownIn($fi, $fj, $x, $y)
            ?? (0 === $si ? null : $this->knownIn($fi + $si, $fj, $x, $y))
            ?? (0 === $sj ? null : $this->knownIn($fi, $fj + $sj, $x, $y))
            ?? (0 === $si || 0 === $sj ? null : $this->knownIn($fi + $si, $fj + $sj, $x, $y));
        if (null !== $known) {
            return $known;
        }
        $this->places[] = [$x, $y];

        return $this->buckets[$fi][$fj][] = \count($this->places) - 1;
    }

    private function knownIn(int $i, int $j, float $x, float $y): ?int
    {
        foreach ($this->buckets[$i][$j] ?? [] as $n) {
            if (abs($this->places[$n][0] - $x) < self::NEAR_MM && abs($this->places[$n][1] - $y) < self::NEAR_MM) {
                return $n;
            }
        }

        return null;
    }

    /** Cuts edges where corners of others lie on them. */
    private function meetEdges(): void
    {
        // From left to right, so that only places beside an edge are held against it.
        $xs = array_column($this->places, 0);
        asort($xs);
        $order = array_keys($xs);
        $xs = array_values($xs);
        foreach ($this->rings as $c => $rings) {
            foreach ($rings as $r => $ring) {
                $cut = [];
                $from = $ring[\count($ring) - 1];
                foreach ($ring as $to) {
                    array_push($cut, ...$this->between($from, $to, $order, $xs));
                    $cut[] = $from = $to;
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
        $reach = self::NEAR_MM * hypot($dx, $dy);
        $length2 = $dx * $dx + $dy * $dy;
        $least = min($ax, $bx) - self::NEAR_MM;
        $most = max($ax, $bx) + self::NEAR_MM;
        $n = \count($xs);
        $low = 0;
        for ($high = $n; $n > self::FEW && $low < $high;) {
            $middle = ($low + $high) >> 1;
            if ($xs[$middle] < $least) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }
        $on = [];
        for (; $low < $n && $xs[$low] <= $most; ++$low) {
            if ($xs[$low] < $least) {
                continue;
            }
            $k = $order[$low];
            [$px, $py] = [$xs[$low] - $ax, $this->places[$k][1] - $ay];
            if (abs($px * $dy - $py * $dx) < $reach && $k !== $from && $k !== $to) {
                $along = $px * $dx + $py * $dy;
                if ($along > 0.0 && $along < $length2) {
                    $on[$k] = $along;
                }
            }
        }
        if (\count($on) > 1) {
            asort($on);
        }

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
     * @param list<array{HeightPlane, HeightPlane}> $spans
     *
     * @return list<float> parts of the way from start to end where two of the planes pass each other
     */
    private function crossings(int $from, int $to, array $spans): array
    {
        $parts = [];
        $planes = [];
        foreach ($spans as [$bottom, $top]) {
            array_push($planes, $bottom, $top);
        }
        [[$ax, $ay], [$bx, $by]] = [$this->places[$from], $this->places[$to]];
        $over = array_map(static fn (HeightPlane $p): array => [$p->at($ax, $ay), $p->at($bx, $by)], $planes);
        foreach ($over as $a => [$start, $end]) {
            for ($b = 0; $b < $a; ++$b) {
                [$s, $e] = [$start - $over[$b][0], $end - $over[$b][1]];
                if ($s * $e < 0.0 && min(abs($s), abs($e)) > self::SAME_HEIGHT_MM) {
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
        $all = [];
        $over = [];
        foreach ($this->cells as $c => $cell) {
            foreach ($this->rings[$c] as $ring) {
                foreach ($ring as $n) {
                    [$x, $y] = $this->places[$n];
                    $of = [];
                    foreach ($cell->spans as [$bottom, $top]) {
                        $of[] = $all[$n][] = $bottom->at($x, $y);
                        $of[] = $all[$n][] = $top->at($x, $y);
                    }
                    $over[$c][$n] = $of;
                }
            }
        }
        foreach ($all as $n => $heights) {
            sort($heights);
            $kept = [];
            $last = -\INF;
            foreach ($heights as $z) {
                if ($z - $last > self::SAME_HEIGHT_MM) {
                    $kept[] = $last = $z;
                }
            }
            $this->heights[$n] = $kept;
        }
        foreach ($over as $c => $places) {
            foreach ($places as $n => $heights) {
                $numbers = [];
                $kept = $this->heights[$n];
                foreach ($heights as $z) {
                    $k = \count($kept) - 1;
                    while ($kept[$k] > $z) {
                        --$k;
                    }
                    $numbers[] = $k;
                }
                $this->spans[$c][$n] = $numbers;
            }
        }
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
            for ($k = 0, $last = 2 * \count($cell->spans); $k < $last; $k += 2) {
                [$above, $below, $isSolid] = [[], [], false];
                foreach ($this->rings[$c] as $ring) {
                    [$upper, $lower] = [[], []];
                    foreach ($ring as $n) {
                        [$b, $t] = [$this->spans[$c][$n][$k], $this->spans[$c][$n][$k + 1]];
                        $isSolid = $isSolid || $t > $b;
                        $upper[] = $this->vertex($n, $t);
                        $lower[] = $this->vertex($n, $b);
                    }
                    $above[] = $upper;
                    $below[] = array_reverse($lower);
                }
                if ($isSolid) {
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
            [$a, $b] = [$this->spans[$left][$from], $this->spans[$left][$to]];
            [$c, $d] = null === $right ? [[], []] : [$this->spans[$right][$from], $this->spans[$right][$to]];
            if ($a === $c && $b === $d) {
                continue;
            }
            if (null === $right && 2 === \count($a)) {
                if ($a[0] !== $a[1] || $b[0] !== $b[1]) {
                    $this->stand($from, $to, [$a[0], $b[0]], [$a[1], $b[1]], true);
                }
                continue;
            }
            $here = self::strips($a, $b);
            $there = self::strips($c, $d);
            $lines = [];
            foreach ([...$here, ...$there] as [$low, $high, $lowEnd, $highEnd]) {
                $lines[$low * self::MOST_HEIGHTS + $lowEnd] = [$low, $lowEnd];
                $lines[$high * self::MOST_HEIGHTS + $highEnd] = [$high, $highEnd];
            }
            // No two pass each other: in the middle as at either end.
            usort($lines, static fn (array $p, array $q): int => $p[0] + $p[1] <=> $q[0] + $q[1]);
            $begun = null;
            $solid = 0;
            for ($n = 0, $last = \count($lines) - 1; $n <= $last; ++$n) {
                [$lower, $upper] = [$lines[$n], $lines[$n + 1] ?? null];
                $next = null === $upper ? 0 : self::isSolid($here, $lower, $upper) - self::isSolid($there, $lower, $upper);
                if ($next !== $solid) {
                    if (null !== $begun && 0 !== $solid) {
                        $this->stand($from, $to, $begun, $lines[$n], $solid > 0);
                    }
                    [$begun, $solid] = [$lines[$n], $next];
                }
            }
        }
    }

    /**
     * @param list<int> $starts numbers of heights of one cell's spans at an edge's start, and at its end
     * @param list<int> $ends
     *
     * @return list<Strip>
     */
    private static function strips(array $starts, array $ends): array
    {
        $strips = [];
        for ($k = 0, $n = \count($starts); $k < $n; $k += 2) {
            if ($starts[$k] !== $starts[$k + 1] || $ends[$k] !== $ends[$k + 1]) {
                $strips[] = [$starts[$k], $starts[$k + 1], $ends[$k], $ends[$k + 1]];
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
