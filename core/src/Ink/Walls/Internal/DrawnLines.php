<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Exchange\ExactLine;

/**
 * Exact lines of one pen by their directions, and by the centres about which they are round: pieces that lie in one line are one level, mm
 * across from the axis, with the stretches along it that are drawn; levels come from right to left.
 *
 * @internal
 *
 * @phpstan-type Level array{out: float, stretches: list<array{float, float}>}
 * @phpstan-type Direction array{axis: DrawnAxis, levels: list<Level>}
 *
 * @phpstan-import-type Line from ExactLine
 */
final readonly class DrawnLines
{
    /** mm: shorter pieces say too little of their direction */
    private const SHORTEST = 8.0;
    /** radians within which lines run one way */
    private const ONE_WAY = 0.004;
    /** mm within which pieces lie in one line, and touch each other: decimals of a file at the scale of its sheet */
    private const ONE_LINE = 0.25;

    /** mm along an arc from one place to the next */
    private const STEP_MM = 150.0;

    /** @param list<Direction> $directions */
    private function __construct(public array $directions)
    {
    }

    public static function of(DrawnArcs $lines): self
    {
        [$rounds, $straight] = $lines->rounds();

        return new self([
            ...([] === $straight ? [] : self::straight($straight)),
            ...array_map(static fn (DrawnRound $r): array => ['axis' => $r->axis, 'levels' => $r->levels], $rounds),
        ]);
    }

    /** @return list<array{float, float, float, float}> all of them, mm, arcs by their chords */
    public function segments(): array
    {
        $segments = [];
        foreach ($this->directions as ['axis' => $axis, 'levels' => $levels]) {
            foreach ($levels as ['out' => $out, 'stretches' => $stretches]) {
                foreach ($stretches as [$from, $to]) {
                    $count = null === $axis->radius ? 1 : max(1, (int) ceil(($to - $from) / self::STEP_MM));
                    for ($i = 0; $i < $count; ++$i) {
                        $segments[] = [
                            ...$axis->at($from + ($to - $from) * $i / $count, $out),
                            ...$axis->at($from + ($to - $from) * ($i + 1) / $count, $out),
                        ];
                    }
                }
            }
        }

        return $segments;
    }

    /**
     * @param non-empty-list<Line> $lines mm
     *
     * @return list<Direction>
     */
    private static function straight(array $lines): array
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

        return array_map(
            static fn (float $angle, array $pieces): array => self::direction($middle, $angle, $pieces),
            array_values($angles),
            array_values($ways),
        );
    }

    /**
     * @param array{float, float} $middle
     * @param list<array{float, float, float, float, float, float}> $pieces
     *
     * @return Direction
     */
    private static function direction(array $middle, float $angle, array $pieces): array
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

        return ['axis' => DrawnAxis::straight($middle, [$x, $y]), 'levels' => $found];
    }

    /**
     * @param non-empty-list<array{float, float, float, float}> $pieces
     *
     * @return Level
     */
    private static function level(array $pieces): array
    {
        $whole = array_sum(array_column($pieces, 3));
        $out = array_sum(array_map(static fn (array $p): float => $p[0] * $p[3], $pieces)) / max(1e-9, $whole);

        $stretches = array_map(static fn (array $p): array => [$p[1], $p[2]], $pieces);

        return ['out' => $out, 'stretches' => Stretches::merged($stretches, self::ONE_LINE)];
    }
}
