<?php

declare(strict_types=1);

namespace Plinth\Core\Enclosure\Internal;

use Plinth\Core\Plan\Model\Stair;

/**
 * Places in the middle of things.
 *
 * @internal
 */
final class Middle
{
    /**
     * @param non-empty-list<array{float, float}> $line
     *
     * @return array{float, float, float, float} the middle of its longest stretch, and which way that runs
     */
    public static function ofLine(array $line): array
    {
        $longest = 0.0;
        $at = [...$line[0], 0.0, 0.0];
        for ($i = 1; $i < \count($line); ++$i) {
            [[$ax, $ay], [$bx, $by]] = [$line[$i - 1], $line[$i]];
            $mm = hypot($bx - $ax, $by - $ay);
            if ($mm > $longest) {
                $longest = $mm;
                $at = [($ax + $bx) / 2.0, ($ay + $by) / 2.0, ($bx - $ax) / $mm, ($by - $ay) / $mm];
            }
        }

        return $at;
    }

    /** @return array{float, float}|null in the middle of what is walked on */
    public static function ofStair(Stair $stair): ?array
    {
        $places = [] !== $stair->treads ? $stair->treads[intdiv(\count($stair->treads), 2)]->points() : array_map(
            static fn ($p): array => $p->toArray(),
            \count($stair->line) < 2 ? [] : \array_slice($stair->line, intdiv(\count($stair->line) - 1, 2), 2),
        );

        return [] === $places ? null : [
            array_sum(array_column($places, 0)) / \count($places), array_sum(array_column($places, 1)) / \count($places),
        ];
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     *
     * @return array{float, float}
     */
    public static function between(array $a, array $b): array
    {
        return [($a[0] + $b[0]) / 2.0, ($a[1] + $b[1]) / 2.0];
    }
}
