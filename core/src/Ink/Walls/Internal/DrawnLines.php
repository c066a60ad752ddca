<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

/**
 * Exact lines of one pen by their directions, each with its unit vector: pieces that lie in one line are one level, mm across from the
 * middle of all, with the stretches along it that are drawn; levels come from right to left.
 *
 * @internal
 *
 * @phpstan-type Level array{out: float, stretches: list<array{float, float}>}
 * @phpstan-type Direction array{x: float, y: float, levels: list<Level>}
 */
final readonly class DrawnLines
{
    /** mm: shorter pieces say too little of their direction */
    private const SHORTEST = 8.0;
    /** radians within which lines run one way */
    private const ONE_WAY = 0.004;
    /** mm within which pieces lie in one line, and touch each other: decimals of a file at the scale of its sheet */
    private const ONE_LINE = 0.25;

    /**
     * @param array{float, float} $middle
     * @param list<Direction> $directions
     */
    private function __construct(public array $middle, public array $directions)
    {
    }

    /** @param non-empty-list<array{float, float, float, float, int}> $lines mm */
    public static function of(array $lines): self
    {
        $middle = [
            array_sum(array_map(static fn (array $l): float => $l[0] + $l[2], $lines)) / 2.0 / \count($lines),
            array_sum(array_map(static fn (array $l): float => $l[1] + $l[3], $lines)) / 2.0 / \count($lines),
        ];
        $pieces = [];
        foreach ($lines as [$x1, $y1, $x2, $y2]) {
            $length = hypot($x2 - $x1, $y2 - $y1);
            if ($length >= self::SHORTEST) {
                $way = fmod(atan2($y2 - $y1, $x2 - $x1) + 2.0 * \M_PI, \M_PI);
                $pieces[] = [$length, $way, $x1 - $middle[0], $y1 - $middle[1], $x2 - $middle[0], $y2 - $middle[1]];
            }
        }
        // The longest first: they know their direction best.
        usort($pieces, static fn (array $a, array $b): int => $b[0] <=> $a[0]);
        /** @var list<float> $angles */
        [$angles, $ways] = [[], []];
        foreach ($pieces as $piece) {
            $way = \count($angles);
            foreach ($angles as $k => $angle) {
                $off = fmod($piece[1] - $angle + 1.5 * \M_PI, \M_PI) - \M_PI / 2.0;
                // A short piece may be off by what its ends are rounded to.
                if (abs($off) < self::ONE_WAY + self::ONE_LINE / $piece[0] / 4.0) {
                    $way = $k;
                    break;
                }
            }
            $angles[$way] ??= $piece[1];
            $ways[$way][] = $piece;
        }

        return new self($middle, array_map(self::direction(...), array_values($angles), array_values($ways)));
    }

    /**
     * @param list<array{float, float, float, float, float, float}> $pieces
     *
     * @return Direction
     */
    private static function direction(float $angle, array $pieces): array
    {
        [$x, $y] = [cos($angle), sin($angle)];
        $levels = [];
        foreach ($pieces as [$length, , $x1, $y1, $x2, $y2]) {
            $along = [$x * $x1 + $y * $y1, $x * $x2 + $y * $y2];
            $levels[] = [($x * ($y1 + $y2) - $y * ($x1 + $x2)) / 2.0, min($along), max($along), $length];
        }
        usort($levels, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $found = $group = [];
        foreach ($levels as $k => $level) {
            $group[] = $level;
            if (($levels[$k + 1][0] ?? \INF) - $level[0] > self::ONE_LINE) {
                $found[] = self::level($group);
                $group = [];
            }
        }

        return ['x' => $x, 'y' => $y, 'levels' => $found];
    }

    /**
     * @param list<array{float, float, float, float}> $pieces
     *
     * @return Level
     */
    private static function level(array $pieces): array
    {
        $whole = array_sum(array_column($pieces, 3));
        usort($pieces, static fn (array $a, array $b): int => $a[1] <=> $b[1]);
        [$stretches, $begin, $end] = [[], $pieces[0][1] ?? 0.0, $pieces[0][2] ?? 0.0];
        foreach ($pieces as [, $from, $to]) {
            if ($from > $end + self::ONE_LINE) {
                $stretches[] = [$begin, $end];
                $begin = $from;
            }
            $end = max($end, $to);
        }
        $stretches[] = [$begin, $end];

        $out = array_sum(array_map(static fn (array $p): float => $p[0] * $p[3], $pieces)) / max(1e-9, $whole);

        return ['out' => $out, 'stretches' => $stretches];
    }
}
