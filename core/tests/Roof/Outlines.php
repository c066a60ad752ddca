<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Roof;

use Plinth\Core\Geometry\Point;

/** Outlines of roofs as they come, from one seed each: letters, stars, some with a court. */
final class Outlines
{
    private const LETTERS = [
        'L' => [[0, 0], [10, 0], [10, 4], [5, 4], [5, 9], [0, 9]],
        'T' => [[4, 0], [8, 0], [8, 5], [12, 5], [12, 9], [0, 9], [0, 5], [4, 5]],
        'U' => [[0, 0], [12, 0], [12, 9], [8, 9], [8, 4], [4, 4], [4, 9], [0, 9]],
        'X' => [[4, 0], [8, 0], [8, 4], [12, 4], [12, 8], [8, 8], [8, 12], [4, 12], [4, 8], [0, 8], [0, 4], [4, 4]],
        'S' => [[0, 0], [8, 0], [8, 3], [11, 3], [11, 8], [3, 8], [3, 5], [0, 5]],
    ];

    /** @return list<list<Point>> the outer ring, then holes */
    public static function random(int $seed): array
    {
        mt_srand($seed);
        $part = static fn (): float => mt_rand() / mt_getrandmax();
        $turn = 0 === mt_rand(0, 1) ? 0.0 : $part() * 2.0 * \M_PI;
        if (0 === $seed % 3) {
            $ring = array_values(self::LETTERS)[mt_rand(0, \count(self::LETTERS) - 1)];
            $rings = [array_map(static fn (array $p): array => [1000.0 * $p[0], 1000.0 * $p[1]], $ring)];
        } else {
            $hasCourt = 0 === $seed % 4;
            $n = mt_rand($hasCourt ? 8 : 3, 0 === $seed % 5 ? 60 : 14);
            $rings = [self::star($n, 4000.0, 10_000.0, $part)];
            if ($hasCourt) {
                $rings[] = self::star(mt_rand(3, 6), 800.0, 1800.0, $part);
            }
        }

        return array_map(static fn (array $ring): array => array_map(static fn (array $p): Point => new Point(
            cos($turn) * $p[0] - sin($turn) * $p[1],
            sin($turn) * $p[0] + cos($turn) * $p[1],
        ), $ring), $rings);
    }

    /**
     * @param callable(): float $part
     *
     * @return list<array{float, float}>
     */
    private static function star(int $n, float $nearest, float $furthest, callable $part): array
    {
        $ring = [];
        for ($k = 0; $k < $n; ++$k) {
            $angle = 2.0 * \M_PI * ($k + 0.2 + 0.6 * $part()) / $n;
            $radius = $nearest + ($furthest - $nearest) * $part();
            $ring[] = [$radius * cos($angle), $radius * sin($angle)];
        }

        return $ring;
    }
}
