<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling\Internal;

/**
 * Which ends were drawn on to a wall between its own ends: they stay on it.
 *
 * @internal
 */
final class EndsOnWalls
{
    /** An end that lies within this of a centre line, or within the wall's body, ends on that wall, mm. */
    private const NEAR_MM = 20.0;
    /** Nearer to the wall's own end it is another matter, mm. */
    private const FROM_END_MM = 1.0;
    private const CELL_MM = 2000.0;

    /** @return list<array{int, string}> node and wall */
    public static function of(Traced $traced): array
    {
        $cells = [];
        foreach ($traced->places as $node => [$x, $y]) {
            $cells[self::cell($x)][self::cell($y)][] = $node;
        }
        $found = [];
        foreach ($traced->straight as $id => [$from, $to]) {
            $id = (string) $id;
            [$x, $y] = $traced->places[$from];
            [$dx, $dy] = $traced->run($id);
            $length = hypot($dx, $dy);
            [$ux, $uy] = [$dx / $length, $dy / $length];
            $reach = max(self::NEAR_MM, $traced->thicknesses[$id] / 2.0);
            foreach (self::beside($cells, $x, $y, $dx, $dy, $reach) as $node) {
                if ($node === $from || $node === $to) {
                    continue;
                }
                [$px, $py] = [$traced->places[$node][0] - $x, $traced->places[$node][1] - $y];
                $along = $px * $ux + $py * $uy;
                if ($along > self::FROM_END_MM && $along < $length - self::FROM_END_MM && abs($py * $ux - $px * $uy) <= $reach) {
                    $found[] = [$node, $id];
                }
            }
        }

        return $found;
    }

    /**
     * @param array<int, array<int, list<int>>> $cells nodes by cell
     *
     * @return list<int> nodes of the cells that a run passes
     */
    private static function beside(array $cells, float $x, float $y, float $dx, float $dy, float $reach): array
    {
        [$left, $right] = [self::cell(min($x, $x + $dx) - $reach), self::cell(max($x, $x + $dx) + $reach)];
        $columns = $right - $left > \count($cells) ? array_filter(
            array_keys($cells),
            static fn (int $c): bool => $c >= $left && $c <= $right,
        ) : range($left, $right);
        $nodes = [];
        foreach ($columns as $column) {
            if (!isset($cells[$column])) {
                continue;
            }
            [$low, $high] = [min($y, $y + $dy), max($y, $y + $dy)];
            if (abs($dx) > self::CELL_MM) {
                // Within this column the run passes but a part of its height.
                $ends = [];
                foreach ([$column * self::CELL_MM - $reach, ($column + 1) * self::CELL_MM + $reach] as $edge) {
                    $ends[] = $y + $dy * max(0.0, min(1.0, ($edge - $x) / $dx));
                }
                [$low, $high] = [min($ends), max($ends)];
            }
            [$bottom, $top] = [self::cell($low - $reach), self::cell($high + $reach)];
            foreach ($top - $bottom > \count($cells[$column]) ? array_keys($cells[$column]) : range($bottom, $top) as $row) {
                foreach ($row >= $bottom && $row <= $top ? $cells[$column][$row] ?? [] : [] as $node) {
                    $nodes[] = $node;
                }
            }
        }

        return $nodes;
    }

    private static function cell(float $at): int
    {
        return (int) floor($at / self::CELL_MM);
    }
}
