<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Geometry\Polygon;

/**
 * Whether there is room on paper.
 *
 * @internal
 *
 * @phpstan-type Ring non-empty-list<array{float, float}>
 */
final class Taken
{
    /**
     * @param Ring $room
     * @param list<Ring> $rooms that are taken
     * @param float $apart mm that lie between them at least
     */
    public static function isFree(array $room, array $rooms, float $apart = 0.0): bool
    {
        [$x1, $y1, $x2, $y2] = Polygon::bounds($room);
        foreach ($rooms as $other) {
            [$u1, $v1, $u2, $v2] = Polygon::bounds($other);
            if ($x1 < $u2 + $apart && $x2 > $u1 - $apart && $y1 < $v2 + $apart && $y2 > $v1 - $apart) {
                return false;
            }
        }

        return true;
    }

    /**
     * What of an upright or a level line lies beside all rooms.
     *
     * @param array{float, float} $from
     * @param array{float, float} $to
     * @param list<Ring> $rooms
     * @param float $apart mm that it keeps away from them
     *
     * @return list<array{array{float, float}, array{float, float}}>
     */
    public static function beside(array $from, array $to, array $rooms, float $apart): array
    {
        $along = abs($to[0] - $from[0]) > abs($to[1] - $from[1]) ? 0 : 1;
        $across = 1 - $along;
        [$low, $high] = [min($from[$along], $to[$along]), max($from[$along], $to[$along])];
        $stretches = [[$low, $high]];
        foreach ($rooms as $room) {
            $box = Polygon::bounds($room);
            if ($from[$across] <= $box[$across] - $apart || $from[$across] >= $box[$across + 2] + $apart) {
                continue;
            }
            $left = [];
            foreach ($stretches as [$a, $b]) {
                array_push($left, [$a, min($b, $box[$along] - $apart)], [max($a, $box[$along + 2] + $apart), $b]);
            }
            $stretches = array_values(array_filter($left, static fn (array $s): bool => $s[1] > $s[0]));
        }
        $at = static fn (float $mm): array => 0 === $along ? [$mm, $from[1]] : [$from[0], $mm];

        $pieces = [];
        foreach ($stretches as [$a, $b]) {
            $pieces[] = [$at($a), $at($b)];
        }

        return $pieces;
    }
}
