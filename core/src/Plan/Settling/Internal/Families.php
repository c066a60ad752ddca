<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling\Internal;

use Plinth\Core\Geometry\Tolerance;

/**
 * Which walls are meant to run one way: level and plumb ones first, then those that run nearly the same way, or nearly at right
 * angles, as many others.
 *
 * @internal
 */
final class Families
{
    private const QUARTER = \M_PI / 2.0;

    /**
     * @param float $meant walls that run off by less are meant to run one way, radians
     *
     * @return non-empty-list<list<string>> walls that run the grid's way, though there be none; then the others, at least two each
     */
    public static function members(Traced $traced, float $meant): array
    {
        $angles = self::angles($traced, array_keys($traced->straight));
        $grid = array_filter($angles, static fn (float $angle): bool => abs(self::off($angle, 0.0)) <= $meant);
        $crowds = [];
        foreach (self::crowds(array_diff_key($angles, $grid), $traced, $meant) as $crowd) {
            sort($crowd, \SORT_STRING);
            $crowds[$crowd[0]] = $crowd;
        }
        ksort($crowds, \SORT_STRING);

        return [array_map(strval(...), array_keys($grid)), ...array_values($crowds)];
    }

    /**
     * @param non-empty-list<list<string>> $members
     *
     * @return list<Family> the grid's first, if it has walls
     */
    public static function of(array $members, Traced $traced): array
    {
        $families = [];
        foreach ($members as $k => $crowd) {
            $angles = self::angles($traced, $crowd);
            if ([] !== $angles) {
                $way = 0 === $k ? 0.0 : self::middle($angles, $traced);
                $families[] = Family::of($way, 0 === $k || self::mostRun($angles, $way, $traced), self::normals($angles, $way));
            }
        }

        return $families;
    }

    /**
     * @param list<array-key> $walls
     *
     * @return array<array-key, float>
     */
    private static function angles(Traced $traced, array $walls): array
    {
        $angles = [];
        foreach ($walls as $id) {
            $angles[$id] = $traced->angle((string) $id);
        }

        return $angles;
    }

    /** An angle less another, modulo quarter turns, from −45° to 45°. */
    private static function off(float $angle, float $from): float
    {
        $off = $angle - $from;

        return $off - self::QUARTER * round($off / self::QUARTER);
    }

    /**
     * The angle that has half of a family's length on either side: where most walls agree, exactly theirs.
     *
     * @param non-empty-array<array-key, float> $angles by wall
     */
    private static function middle(array $angles, Traced $traced): float
    {
        $first = reset($angles);
        $offs = array_map(static fn (float $angle): float => self::off($angle, $first), $angles);
        asort($offs);
        $lengths = array_map(static fn (int|string $id): float => $traced->length((string) $id), array_keys($offs));
        $half = array_sum($lengths) / 2.0;
        foreach (array_values($offs) as $k => $off) {
            $half -= $lengths[$k];
            if ($half <= 0.0) {
                return $first + $off;
            }
        }

        return $first;
    }

    /**
     * Whether most of a family's length runs its way already, of more walls than one: it was drawn so, and stays.
     *
     * @param array<array-key, float> $angles by wall
     */
    private static function mostRun(array $angles, float $way, Traced $traced): bool
    {
        [$count, $do, $all] = [0, 0.0, 0.0];
        foreach ($angles as $id => $angle) {
            $length = $traced->length((string) $id);
            $all += $length;
            if (abs(self::off($angle, $way)) * $length <= Tolerance::STILL_MM) {
                ++$count;
                $do += $length;
            }
        }

        return $count > 1 && $do > $all / 2.0;
    }

    /**
     * Round the way that most length runs, then round the next.
     *
     * @param array<array-key, float> $angles
     *
     * @return list<non-empty-list<string>>
     */
    private static function crowds(array $angles, Traced $traced, float $meant): array
    {
        $ways = array_map(static fn (float $angle): float => self::off($angle, self::QUARTER / 2.0), $angles);
        asort($ways);
        $ids = array_map(strval(...), array_keys($ways));
        $count = \count($ids);
        $lengths = array_map($traced->length(...), $ids);
        $ways = array_values($ways);
        // Walls k − before … k + after run nearly as wall k does; ways go round.
        [$before, $after, $weights] = [[], [], []];
        [$first, $last] = [0, -1];
        $weight = 0.0;
        for ($k = 0; $k < $count; ++$k) {
            while ($first < $k && self::apart($ways, $k, $first, $count) > $meant) {
                $weight -= $lengths[($first++ + $count) % $count];
            }
            while ($last + 1 < $first + $count && self::apart($ways, $k, $last + 1, $count) <= $meant) {
                $weight += $lengths[++$last % $count];
            }
            while (0 === $k && $last + 1 < $first + $count && self::apart($ways, $k, $first - 1, $count) <= $meant) {
                $weight += $lengths[--$first + $count];
            }
            [$before[], $after[], $weights[]] = [$k - $first, $last - $k, $weight];
        }
        // Whose windows weigh alike to the last figures stay in the order of their ways, whichever way the storey is turned.
        uksort(
            $weights,
            static fn (int $a, int $b): int => abs($weights[$a] - $weights[$b]) > 1e-6 ? $weights[$b] <=> $weights[$a] : $a <=> $b,
        );
        [$taken, $crowds] = [[], []];
        foreach (array_keys($weights) as $k) {
            if (isset($taken[$k])) {
                continue;
            }
            $crowd = [];
            for ($n = -$before[$k]; $n <= $after[$k]; ++$n) {
                $other = ($k + $n + $count) % $count;
                if (!isset($taken[$other])) {
                    $taken[$other] = true;
                    $crowd[] = $ids[$other];
                }
            }
            if (\count($crowd) > 1) {
                $crowds[] = $crowd;
            }
        }

        return $crowds;
    }

    /**
     * @param list<float> $ways sorted, within a quarter turn
     * @param int $other may run over either end, by less than a whole turn of the list
     */
    private static function apart(array $ways, int $k, int $other, int $count): float
    {
        return abs(self::off($ways[($other + $count) % $count], $ways[$k]));
    }

    /**
     * @param array<array-key, float> $angles
     *
     * @return array<array-key, int>
     */
    private static function normals(array $angles, float $way): array
    {
        return array_map(static fn (float $angle): int => 0 === (int) round(($angle - $way) / self::QUARTER) % 2 ? 1 : 0, $angles);
    }
}
