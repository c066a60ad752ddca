<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

/**
 * Boxes that lie square to each other, as one body: the plan falls into the cells between all their sides.
 *
 * @internal
 *
 * @phpstan-type Box array{float, float, float, float, float, float}
 */
final class Boxes
{
    /**
     * @param list<Box> $boxes xmin, ymin, zmin, xmax, ymax, zmax
     *
     * @return list<Cell>
     */
    public static function cells(array $boxes): array
    {
        $xs = self::sides([...array_column($boxes, 0), ...array_column($boxes, 3)]);
        $ys = self::sides([...array_column($boxes, 1), ...array_column($boxes, 4)]);
        $cells = [];
        foreach ($xs as $i => $x2) {
            foreach ($ys as $k => $y2) {
                [$x1, $y1] = [$xs[$i - 1] ?? null, $ys[$k - 1] ?? null];
                if (null === $x1 || null === $y1) {
                    continue;
                }
                $spans = self::spans($boxes, ($x1 + $x2) / 2.0, ($y1 + $y2) / 2.0);
                if ([] !== $spans) {
                    $cells[] = new Cell([[[$x1, $y1], [$x2, $y1], [$x2, $y2], [$x1, $y2]]], $spans);
                }
            }
        }

        return $cells;
    }

    /**
     * @param list<float> $at
     *
     * @return list<float> from the least, each once
     */
    private static function sides(array $at): array
    {
        sort($at);
        $kept = [];
        foreach ($at as $x) {
            if ([] === $kept || $x - $kept[\count($kept) - 1] > 0.01) {
                $kept[] = $x;
            }
        }

        return $kept;
    }

    /**
     * @param list<Box> $boxes
     *
     * @return list<array{HeightPlane, HeightPlane}> what stands at a place, as far as it hangs together
     */
    private static function spans(array $boxes, float $x, float $y): array
    {
        $reach = [];
        foreach ($boxes as [$x1, $y1, $z1, $x2, $y2, $z2]) {
            if ($x > $x1 && $x < $x2 && $y > $y1 && $y < $y2) {
                $reach[] = [$z1, $z2];
            }
        }
        sort($reach);
        $joined = [];
        foreach ($reach as [$from, $to]) {
            $last = \count($joined) - 1;
            if ($last >= 0 && $from <= $joined[$last][1] + 0.01) {
                $joined[$last][1] = max($joined[$last][1], $to);
            } else {
                $joined[] = [$from, $to];
            }
        }

        return array_map(static fn (array $s): array => [HeightPlane::level($s[0]), HeightPlane::level($s[1])], $joined);
    }
}
