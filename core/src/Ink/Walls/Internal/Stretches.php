<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

/**
 * From where to where along a line something is drawn.
 *
 * @internal
 */
final class Stretches
{
    /**
     * Those that overlap, or are no further apart than this, as one.
     *
     * @param non-empty-list<array{float, float}> $stretches
     *
     * @return list<array{float, float}>
     */
    public static function merged(array $stretches, float $touch): array
    {
        usort($stretches, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        [$merged, [$begin, $end]] = [[], $stretches[0]];
        foreach ($stretches as [$from, $to]) {
            if ($from > $end + $touch) {
                $merged[] = [$begin, $end];
                $begin = $from;
            }
            $end = max($end, $to);
        }
        $merged[] = [$begin, $end];

        return $merged;
    }
}
