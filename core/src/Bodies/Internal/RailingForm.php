<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Plan\Model\Wall;

/**
 * What a railing leaves open between its posts, balusters and rails: it stands as a wall does, and this is cut out of it.
 *
 * Sizes: common practice, no source; that no sphere of 100 mm passes a guarding: Approved Document K (from memory).
 *
 * @internal
 */
final class RailingForm
{
    /** Higher than a hand reaches down to, mm, where its own height is not said. */
    public const HEIGHT_MM = 1000.0;
    private const POST_MM = 50.0;
    private const POSTS_APART_MM = 1200.0;
    private const BALUSTER_MM = 15.0;
    private const CLEAR_MM = 95.0;
    /** Rails: how high they are, and how far the lower one stands over the floor. */
    private const RAIL_MM = 45.0;
    private const OVER_FLOOR_MM = 80.0;

    /**
     * @param float $base mm, where it stands
     * @param float $top mm, where its handrail ends
     *
     * @return list<Slice>
     */
    public static function open(Wall $wall, float $base, float $top): array
    {
        $length = $wall->length();
        $middle = [$base + self::OVER_FLOOR_MM + self::RAIL_MM, $top - self::RAIL_MM];
        if ($middle[1] - $middle[0] < 1.0 || $length <= 2.0 * self::POST_MM + 1.0) {
            return [];
        }
        $under = [HeightPlane::level($base - 1.0), HeightPlane::level($base + self::OVER_FLOOR_MM)];
        $between = array_map(HeightPlane::level(...), $middle);
        $bays = (int) max(1.0, ceil(($length - self::POST_MM) / self::POSTS_APART_MM));
        $bay = ($length - self::POST_MM) / $bays;
        $open = $bay - self::POST_MM;
        $gaps = (int) max(1.0, ceil(($open + self::BALUSTER_MM) / (self::CLEAR_MM + self::BALUSTER_MM)));
        $gap = ($open - ($gaps - 1) * self::BALUSTER_MM) / $gaps;
        $slices = [];
        for ($i = 0; $i < $bays; ++$i) {
            $start = $i * $bay + self::POST_MM;
            // Posts alone reach the floor.
            $slices[] = new Slice($start, $start + $open, [$under]);
            for ($k = 0; $k < $gaps; ++$k) {
                $from = $start + $k * ($gap + self::BALUSTER_MM);
                $slices[] = new Slice($from, $from + $gap, [$between]);
            }
        }

        return $slices;
    }
}
