<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Plan\Model\FireClass;
use Plinth\Core\Sheets\InkArea;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\SheetInk;

/**
 * Parallel lines that fill a shape.
 *
 * @internal
 */
final class HatchStrokes
{
    private const MOST_LINES = 4000;
    /** Directions and how far apart, told apart in black and white; degrees and mm. */
    private const PATTERNS = [
        [[45.0], 2.0],
        [[135.0], 2.0],
        [[45.0, 135.0], 2.5],
        [[45.0], 1.0],
        [[135.0], 1.0],
        [[0.0, 90.0], 2.0],
        [[0.0, 90.0, 45.0], 2.5],
        [[45.0, 135.0], 1.2],
    ];

    /**
     * A fill of its own for each of some kinds; after eight they begin again.
     *
     * @param non-empty-list<list<array{float, float}>> $rings outer, then holes; mm of paper
     */
    public static function filling(array $rings, int $pattern): SheetInk
    {
        [$directions, $apart] = self::PATTERNS[$pattern % \count(self::PATTERNS)];
        $lines = [];
        foreach ($directions as $degrees) {
            foreach (self::within($rings, $degrees, $apart) as $stroke) {
                $lines[] = new InkLine($stroke, InkLine::FINE);
            }
        }

        return new SheetInk([new InkArea($rings, 1.0)], $lines);
    }

    /**
     * The hatch of a class of fire resistance, in its colour.
     *
     * @param list<list<array{float, float}>> $rings outer, then holes; mm of paper
     *
     * @return list<InkLine>
     */
    public static function ofClass(array $rings, FireClass $class): array
    {
        $lines = [];
        foreach ($class->hatch->directions() as $degrees) {
            foreach (self::within($rings, $degrees, $class->hatch->apartMm()) as $stroke) {
                $lines[] = new InkLine($stroke, InkLine::FINE, colour: $class->rgb());
            }
        }

        return $lines;
    }

    /**
     * @param list<array{float, float}> $ring mm of paper
     * @param float $degrees their direction, counter-clockwise as it is seen
     * @param float $apart mm between two of them; they lie on one grid, whatever they fill
     *
     * @return list<array{array{float, float}, array{float, float}}>
     */
    public static function in(array $ring, float $degrees, float $apart): array
    {
        return self::within([$ring], $degrees, $apart);
    }

    /**
     * @param list<list<array{float, float}>> $rings what lies in an odd number of them
     *
     * @return list<array{array{float, float}, array{float, float}}>
     */
    private static function within(array $rings, float $degrees, float $apart): array
    {
        // y runs down on paper.
        [$ux, $uy] = [cos(deg2rad($degrees)), -sin(deg2rad($degrees))];
        $sides = [];
        foreach ($rings as $ring) {
            $turned = array_map(static fn (array $p): array => [$p[0] * $ux + $p[1] * $uy, $p[1] * $ux - $p[0] * $uy], $ring);
            foreach (\count($turned) < 3 ? [] : $turned as $i => $from) {
                $sides[] = [...$from, ...$turned[($i + 1) % \count($turned)]];
            }
        }
        if ([] === $sides) {
            return [];
        }
        $across = array_column($sides, 1);
        $strokes = [];
        $first = (int) ceil(min($across) / $apart);
        $last = min((int) floor(max($across) / $apart), $first + self::MOST_LINES);
        for ($k = $first; $k <= $last; ++$k) {
            $v = $k * $apart;
            $cuts = [];
            foreach ($sides as [$a, $b, $c, $d]) {
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
