<?php

declare(strict_types=1);

namespace Plinth\Core\Escape\Internal;

use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;

/**
 * Gaps between what stands in a room and its walls, or each other, that nobody walks through.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Polygon
 */
final class Gaps
{
    /** mm: narrower than a person from the side (common practice, no source) */
    private const NARROW = 300.0;
    private const TOUCH = 1.0;
    /** mm: before shorter edges, as those of what is round, there is always a way past */
    private const SHORT = 100.0;

    /**
     * Before every edge of what stands there, the strip that is closed in by something as near as that.
     *
     * @param non-empty-list<Ring> $room
     * @param list<Ring> $standing
     *
     * @return list<Ring>
     */
    public static function narrow(array $room, array $standing): array
    {
        $gaps = [];
        foreach ($standing as $n => $ring) {
            $out = Polygon::area($ring) < 0.0 ? -self::NARROW : self::NARROW;
            foreach ($ring as $i => [$ax, $ay]) {
                [$bx, $by] = $ring[($i + 1) % \count($ring)];
                $length = hypot($bx - $ax, $by - $ay);
                if ($length < self::SHORT) {
                    continue;
                }
                [$nx, $ny] = [($by - $ay) / $length * $out, ($ax - $bx) / $length * $out];
                $strip = [[$ax, $ay], [$ax + $nx, $ay + $ny], [$bx + $nx, $by + $ny], [$bx, $by]];
                $others = array_values(array_diff_key($standing, [$n => 0]));
                if (!self::isNear($strip, [...$room, ...$others])) {
                    continue;
                }
                $strip = $out < 0.0 ? array_reverse($strip) : $strip;
                $free = Overlay::parts([[$strip], $room, $standing], static fn (array $w): bool => $w[0] > 0 && $w[1] > 0 && $w[2] <= 0);
                foreach ($free as $part) {
                    $depths = array_map(
                        static fn (array $p): float => (($p[0] - $ax) * $nx + ($p[1] - $ay) * $ny) / self::NARROW,
                        $part['outer'],
                    );
                    if (min($depths) < self::TOUCH && max($depths) < self::NARROW - self::TOUCH) {
                        $gaps[] = $part['outer'];
                    }
                }
            }
        }

        return $gaps;
    }

    /**
     * Whether any edge of some rings comes into the box of a strip.
     *
     * @param non-empty-list<array{float, float}> $strip
     * @param list<Ring> $rings
     */
    private static function isNear(array $strip, array $rings): bool
    {
        [$left, $low, $right, $high] = Polygon::bounds($strip);
        foreach ($rings as $ring) {
            [$ax, $ay] = $ring[\count($ring) - 1];
            foreach ($ring as [$bx, $by]) {
                if (min($ax, $bx) <= $right && max($ax, $bx) >= $left && min($ay, $by) <= $high && max($ay, $by) >= $low) {
                    return true;
                }
                [$ax, $ay] = [$bx, $by];
            }
        }

        return false;
    }
}
