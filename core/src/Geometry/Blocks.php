<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/**
 * Which things lie where, by blocks of a few rooms.
 *
 * @phpstan-type Box array{float, float, float, float}
 */
final class Blocks
{
    private const BLOCK_MM = 12_000.0;
    /** Blocks of one column are numbered from a multiple of this; none lies so far off. */
    private const COLUMN = 1 << 24;
    /** What reaches over more blocks than this is kept by itself. */
    private const MANY = 1024;

    /** @var array<int, array<array-key, true>> */
    private array $blocks = [];
    /** @var array<array-key, true> */
    private array $far = [];

    /** @param Box $box */
    public function put(string|int $thing, array $box): void
    {
        foreach (self::keys($box) ?? [] as $key) {
            $this->blocks[$key][$thing] = true;
        }
        if (null === self::keys($box)) {
            $this->far[$thing] = true;
        }
    }

    /** @param Box $box where it lay */
    public function takeAway(string|int $thing, array $box): void
    {
        foreach (self::keys($box) ?? [] as $key) {
            unset($this->blocks[$key][$thing]);
        }
        unset($this->far[$thing]);
    }

    /**
     * @param Box $box
     *
     * @return list<array-key>|null what may touch it; null where nearly everything may
     */
    public function near(array $box): ?array
    {
        $keys = self::keys($box);
        if (null === $keys) {
            return null;
        }
        $found = $this->far;
        foreach ($keys as $key) {
            $found += $this->blocks[$key] ?? [];
        }

        return array_keys($found);
    }

    /**
     * @param Box $box
     *
     * @return list<int>|null
     */
    private static function keys(array $box): ?array
    {
        if (($box[2] - $box[0]) / self::BLOCK_MM * (($box[3] - $box[1]) / self::BLOCK_MM) > self::MANY) {
            return null;
        }
        $keys = [];
        $last = (int) floor($box[3] / self::BLOCK_MM);
        for ($i = (int) floor($box[0] / self::BLOCK_MM); $i <= (int) floor($box[2] / self::BLOCK_MM); ++$i) {
            for ($j = (int) floor($box[1] / self::BLOCK_MM); $j <= $last; ++$j) {
                $keys[] = $i * self::COLUMN + $j;
            }
        }

        return $keys;
    }
}
