<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Plan\Derivation\WallShape;

/**
 * What a corner of the plan belongs to: the walls that meet there. They stay what they are when they are moved, so what was said of a
 * dimension between two corners is said of the same one afterwards.
 *
 * @internal
 */
final class PlaceNames
{
    private const CELL_MM = 20.0;
    /** So near to each other corners of walls are one, mm. */
    private const NEAR_MM = 2.0;

    /** more cells than there are one over the other */
    private const ROW = 1 << 30;

    /** @var array<int, list<array{float, float, string}>> corners of walls, in every cell that they are near to */
    private array $corners = [];

    /** @param iterable<WallShape> $walls */
    public function __construct(iterable $walls)
    {
        foreach ($walls as $wall) {
            foreach ($wall->stretches as ['from' => $from, 'right' => $right, 'to' => $to, 'left' => $left]) {
                foreach ([$from, ...$right, $to, ...$left] as [$x, $y]) {
                    [$low, $high] = [
                        self::cell($x - self::NEAR_MM, $y - self::NEAR_MM),
                        self::cell($x + self::NEAR_MM, $y + self::NEAR_MM),
                    ];
                    $this->corners[$low][] = [$x, $y, $wall->id];
                    if ($low !== $high) {
                        foreach (array_unique([
                            self::cell($x - self::NEAR_MM, $y + self::NEAR_MM),
                            self::cell($x + self::NEAR_MM, $y - self::NEAR_MM),
                            $high,
                        ]) as $cell) {
                            if ($cell !== $low) {
                                $this->corners[$cell][] = [$x, $y, $wall->id];
                            }
                        }
                    }
                }
            }
        }
    }

    /** @param array{float, float} $p */
    public function of(array $p): string
    {
        $walls = [];
        foreach ($this->corners[self::cell($p[0], $p[1])] ?? [] as [$x, $y, $wall]) {
            if (hypot($x - $p[0], $y - $p[1]) < self::NEAR_MM) {
                $walls[$wall] = true;
            }
        }
        ksort($walls, \SORT_STRING);

        return implode('+', array_keys($walls));
    }

    private static function cell(float $x, float $y): int
    {
        return (int) floor($x / self::CELL_MM) * self::ROW + (int) floor($y / self::CELL_MM);
    }
}
