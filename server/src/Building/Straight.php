<?php

declare(strict_types=1);

namespace Plinth\Server\Building;

/** Rings without corners that lie on the straight line between their neighbours, as where a wall within meets one without. */
final readonly class Straight
{
    /** mm off that line */
    private const ON_MM = 0.5;

    /**
     * @param non-empty-list<array{float, float}> $ring
     *
     * @return list<array{float, float}>
     */
    public static function ring(array $ring): array
    {
        for ($i = 0; \count($ring) > 3 && $i < ($n = \count($ring));) {
            [[$ax, $ay], [$bx, $by], [$cx, $cy]] = [$ring[($i + $n - 1) % $n], $ring[$i], $ring[($i + 1) % $n]];
            $length = max(1e-9, hypot($cx - $ax, $cy - $ay));
            if (abs(($bx - $ax) * ($cy - $ay) - ($by - $ay) * ($cx - $ax)) / $length <= self::ON_MM) {
                array_splice($ring, $i, 1);
                $i = max(0, $i - 1);
            } else {
                ++$i;
            }
        }

        return $ring;
    }
}
