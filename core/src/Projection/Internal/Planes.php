<?php

declare(strict_types=1);

namespace Plinth\Core\Projection\Internal;

/**
 * Numbers planes, so that faces that go on in each other are known by one number.
 *
 * @internal
 */
final class Planes
{
    /** Normals that differ by less may be of one plane; corners that lie no further off it lie in it, mm. */
    private const TURN = 2e-5;
    private const OFF_MM = 5e-3;
    /** Buckets of normals to a unit. */
    private const FINE = 1e4;
    private const DIGITS = 1e7;

    /** @var array<int, int> number of a normal by its digits */
    private array $known = [];
    /** @var array<int, list<array{int, array{float, float, float}}>> */
    private array $normals = [];
    private int $turns = 0;
    /** @var array<string, array<int, array<int, list<array{array{float, float, float}, float, int}>>>> by material, normal and mm */
    private array $planes = [];
    private int $count = 0;

    /**
     * @param array{float, float, float} $normal of unit length
     * @param non-empty-list<array{float, float, float}> $ring corners that lie in it
     * @param bool $isNew whether one that is not known yet gets a number
     *
     * @return int −1 where it is not known and gets none
     */
    public function number(array $normal, array $ring, string $material, bool $isNew): int
    {
        $turn = $this->turn($normal);
        $offset = $normal[0] * $ring[0][0] + $normal[1] * $ring[0][1] + $normal[2] * $ring[0][2];
        $bucket = (int) floor($offset);
        for ($k = $bucket - 1; $k <= $bucket + 1; ++$k) {
            foreach ($this->planes[$material][$turn][$k] ?? [] as [[$nu, $nv, $nw], $other, $number]) {
                foreach ($ring as [$u, $v, $w]) {
                    if (abs($nu * $u + $nv * $v + $nw * $w - $other) > self::OFF_MM) {
                        continue 2;
                    }
                }

                return $number;
            }
        }
        if (!$isNew) {
            return -1;
        }
        $this->planes[$material][$turn][$bucket][] = [$normal, $offset, $this->count];

        return $this->count++;
    }

    /** @param array{float, float, float} $n its last part is not negative, so that the two others tell it */
    private function turn(array $n): int
    {
        $digits = self::key((int) round($n[0] * self::DIGITS), (int) round($n[1] * self::DIGITS));
        if (isset($this->known[$digits])) {
            return $this->known[$digits];
        }
        [$x, $y] = [(int) floor($n[0] * self::FINE), (int) floor($n[1] * self::FINE)];
        for ($k = 0; $k < 9; ++$k) {
            foreach ($this->normals[self::key($x + $k % 3 - 1, $y + intdiv($k, 3) - 1)] ?? [] as [$number, $m]) {
                if (abs($m[0] - $n[0]) + abs($m[1] - $n[1]) + abs($m[2] - $n[2]) < self::TURN) {
                    return $this->known[$digits] = $number;
                }
            }
        }
        $this->normals[self::key($x, $y)][] = [$this->turns, $n];

        return $this->known[$digits] = $this->turns++;
    }

    private static function key(int $x, int $y): int
    {
        return ($x << 32) ^ ($y & 0xFFFFFFFF);
    }
}
