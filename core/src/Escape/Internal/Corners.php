<?php

declare(strict_types=1);

namespace Plinth\Core\Escape\Internal;

/**
 * Corners of a storey's cells by place, each once.
 *
 * @internal
 */
final class Corners
{
    /** mm within which corners are one, and lie on an edge */
    private const TOUCH = 0.02;
    /** mm: cells of the grid in which those on an edge are looked for */
    private const GRID = 1000.0;
    /** more cells than there are in a row: a cell's row and column make one number */
    private const ROW = 1_000_000;
    /** the same of fine cells: two that come to one number lie kilometres apart */
    private const FINE_ROW = 100_000_007;

    /** @var array<int, list<int>> by fine cells */
    private array $fine = [];
    /** @var array<int, list<int>> by coarse ones */
    private array $coarse = [];

    /** @param list<array{float, float}> $at those that are there already, which these are not joined to */
    public function __construct(public array $at)
    {
    }

    /** @param array{float, float} $p */
    public function put(array $p): int
    {
        [$i, $j] = [(int) floor($p[0] / self::TOUCH / 2.0), (int) floor($p[1] / self::TOUCH / 2.0)];
        for ($u = $i - 1; $u <= $i + 1; ++$u) {
            for ($v = $j - 1; $v <= $j + 1; ++$v) {
                foreach ($this->fine[$u * self::FINE_ROW + $v] ?? [] as $n) {
                    if (hypot($this->at[$n][0] - $p[0], $this->at[$n][1] - $p[1]) <= self::TOUCH) {
                        return $n;
                    }
                }
            }
        }
        $n = \count($this->at);
        $this->at[] = $p;
        $this->fine[$i * self::FINE_ROW + $j][] = $n;
        $this->coarse[(int) floor($p[0] / self::GRID) * self::ROW + (int) floor($p[1] / self::GRID)][] = $n;

        return $n;
    }

    /**
     * @param list<array{float, float}> $ring
     *
     * @return list<int> its corners, with those that lie on its edges
     */
    public function ring(array $ring): array
    {
        $corners = [];
        foreach ($ring as $i => $p) {
            [$a, $b] = [$this->put($p), $this->put($ring[($i + 1) % \count($ring)])];
            if ($a !== $b) {
                array_push($corners, $a, ...$this->on($a, $b));
            }
        }

        return $corners;
    }

    /** @return list<int> corners between two others, on the line from one to the other */
    private function on(int $a, int $b): array
    {
        [[$ax, $ay], [$bx, $by]] = [$this->at[$a], $this->at[$b]];
        $length = hypot($bx - $ax, $by - $ay);
        [$ux, $uy] = [($bx - $ax) / $length, ($by - $ay) / $length];
        $found = [];
        [$left, $right] = self::cells($ax, $bx);
        [$low, $high] = self::cells($ay, $by);
        for ($i = $left; $i <= $right; ++$i) {
            for ($j = $low; $j <= $high; ++$j) {
                foreach ($this->coarse[$i * self::ROW + $j] ?? [] as $n) {
                    [$dx, $dy] = [$this->at[$n][0] - $ax, $this->at[$n][1] - $ay];
                    $along = $ux * $dx + $uy * $dy;
                    if ($along > 0.0 && $along < $length && abs($ux * $dy - $uy * $dx) <= self::TOUCH && $n !== $a && $n !== $b) {
                        $found[$n] = $along;
                    }
                }
            }
        }
        asort($found);

        return array_keys($found);
    }

    /** @return array{int, int} of the grid, from the first to the last between two places */
    private static function cells(float $a, float $b): array
    {
        return [(int) floor((min($a, $b) - self::TOUCH) / self::GRID), (int) floor((max($a, $b) + self::TOUCH) / self::GRID)];
    }
}
