<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Reading;

use Plinth\Core\Geometry\Point;
use Plinth\Server\Http\Refusal;

/**
 * Six numbers beside a picture: world x and y of each pixel, in metres by common practice, no source.
 *
 * Lines: x per column, y per column, x per row, y per row, x and y of the middle of the first pixel.
 */
final readonly class WorldFile
{
    /** Places further from the zero than this are a map's coordinates, not a building's. */
    private const NEAR_MM = 1e6;

    /** @throws Refusal */
    public static function hint(string $text, int $height): PageHint
    {
        $lines = preg_split('/\s+/', trim(substr($text, 0, 2000)));
        $n = array_map(static fn (string $l): float => is_numeric($l) ? (float) $l : \NAN, false === $lines ? [] : $lines);
        if (
            6 !== \count($n)
            || [] !== array_filter($n, static fn (float $v): bool => !is_finite($v))
            || abs($n[0] * $n[3] - $n[1] * $n[2]) < 1e-18
        ) {
            throw Refusal::invalid(
                'unreadable-world-file',
                'The world file does not hold six numbers that span a plane. Leave it out, or write it anew.',
                'world',
            );
        }
        [$a, $d, $b, $e, $c, $f] = $n;
        $x = 1000.0 * ($c - 0.5 * $a + ($height - 0.5) * $b);
        $y = 1000.0 * ($f - 0.5 * $d + ($height - 0.5) * $e);

        return new PageHint(
            1000.0 * sqrt(abs($a * $e - $b * $d)), rad2deg(atan2($d, $a)),
            abs($x) < self::NEAR_MM && abs($y) < self::NEAR_MM ? new Point($x, $y) : null, 'world file',
        );
    }
}
