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
    private const CELL_MM = 4.0;

    /** @var array<string, list<array{float, float, string}>> corners of walls by cell */
    private array $corners = [];

    /** @param iterable<WallShape> $walls */
    public function __construct(iterable $walls)
    {
        foreach ($walls as $wall) {
            foreach ($wall->stretches as ['from' => $from, 'right' => $right, 'to' => $to, 'left' => $left]) {
                foreach ([$from, ...$right, $to, ...$left] as [$x, $y]) {
                    $this->corners[self::cell($x, $y, 0, 0)][] = [$x, $y, $wall->id];
                }
            }
        }
    }

    /** @param array{float, float} $p */
    public function of(array $p): string
    {
        $walls = [];
        foreach ([-1, 0, 1] as $i) {
            foreach ([-1, 0, 1] as $k) {
                foreach ($this->corners[self::cell($p[0], $p[1], $i, $k)] ?? [] as [$x, $y, $wall]) {
                    if (hypot($x - $p[0], $y - $p[1]) < self::CELL_MM / 2.0) {
                        $walls[$wall] = true;
                    }
                }
            }
        }
        ksort($walls, \SORT_STRING);

        return implode('+', array_keys($walls));
    }

    private static function cell(float $x, float $y, int $i, int $k): string
    {
        return ((int) floor($x / self::CELL_MM) + $i).','.((int) floor($y / self::CELL_MM) + $k);
    }
}
