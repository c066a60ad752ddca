<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Network;

use Plinth\Core\Plan\Network\Exception\TooMuchToDerive;

/** Foretells, before anything is derived, how many pairs of lines will have to be held against each other. */
final class Crowding
{
    /**
     * Pairs whose boxes touch, at least one of them new: by a sweep from left to right that stops at the limit.
     *
     * @param list<array{float, float, float, float}> $new boxes: x and y of the lower left corner, then of the upper right one; mm
     * @param list<array{float, float, float, float}> $there boxes of what is drawn already
     *
     * @throws TooMuchToDerive
     */
    public static function check(array $new, array $there, int $most): int
    {
        $boxes = [
            ...array_map(static fn (array $b): array => [...$b, true], $new),
            ...array_map(static fn (array $b): array => [...$b, false], $there),
        ];
        usort($boxes, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $open = [];
        $pairs = 0;
        $looked = 0;
        foreach ($boxes as [$x1, $y1, $x2, $y2, $isNew]) {
            foreach ($open as $k => [$ox2, $oy1, $oy2, $isOtherNew]) {
                if ($ox2 < $x1) {
                    unset($open[$k]);
                } elseif (($isNew || $isOtherNew) && $oy1 <= $y2 && $oy2 >= $y1) {
                    ++$pairs;
                }
            }
            $looked += \count($open);
            // What only lies beside each other costs a hundredth of what touches.
            if ($pairs > $most || $looked > 100 * $most) {
                throw TooMuchToDerive::pairs($most);
            }
            $open[] = [$x2, $y1, $y2, $isNew];
        }

        return $pairs;
    }
}
