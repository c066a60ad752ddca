<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

/**
 * Parallel lines that fill a shape.
 *
 * @internal
 */
final class HatchStrokes
{
    private const MOST_LINES = 4000;

    /**
     * @param list<array{float, float}> $ring mm of paper
     * @param float $degrees their direction, counter-clockwise as it is seen
     * @param float $apart mm between two of them; they lie on one grid, whatever they fill
     *
     * @return list<array{array{float, float}, array{float, float}}>
     */
    public static function in(array $ring, float $degrees, float $apart): array
    {
        // y runs down on paper.
        [$ux, $uy] = [cos(deg2rad($degrees)), -sin(deg2rad($degrees))];
        $turned = array_map(static fn (array $p): array => [$p[0] * $ux + $p[1] * $uy, $p[1] * $ux - $p[0] * $uy], $ring);
        if (\count($turned) < 3) {
            return [];
        }
        $across = array_column($turned, 1);
        $strokes = [];
        $first = (int) ceil(min($across) / $apart);
        $last = min((int) floor(max($across) / $apart), $first + self::MOST_LINES);
        for ($k = $first; $k <= $last; ++$k) {
            $v = $k * $apart;
            $cuts = [];
            foreach ($turned as $i => [$a, $b]) {
                [$c, $d] = $turned[($i + 1) % \count($turned)];
                if ($b <= $v !== $d <= $v) {
                    $cuts[] = $a + ($v - $b) / ($d - $b) * ($c - $a);
                }
            }
            sort($cuts);
            foreach (array_chunk($cuts, 2) as $pair) {
                if (2 === \count($pair) && $pair[1] > $pair[0]) {
                    $at = static fn (float $u): array => [$u * $ux - $v * $uy, $u * $uy + $v * $ux];
                    $strokes[] = [$at($pair[0]), $at($pair[1])];
                }
            }
        }

        return $strokes;
    }
}
