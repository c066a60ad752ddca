<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Sheets\InkArea;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\SheetInk;
use Plinth\Core\Sheets\Written;

/**
 * Small signs that stand on drawings: levels, section marks, axes, north, scale bars.
 *
 * @internal
 */
final class SheetSigns
{
    private const TEXT_MM = 2.5;
    private const ROUND = 24;
    private const BUBBLE_MM = 4.0;
    private const NORTH_MM = 5.0;
    /** A bar of so many parts. */
    private const BAR_PARTS = 5;
    private const BAR_MM = 2.0;

    /**
     * A level: a triangle that stands on it, with the height over the project's zero.
     *
     * @param bool $isFilled of what is finished; common practice, no source
     */
    public static function level(float $x, float $y, string $words, bool $isFilled = false): SheetInk
    {
        $triangle = [[$x, $y], [$x - 1.3, $y - 2.2], [$x + 1.3, $y - 2.2]];

        return new SheetInk(
            $isFilled ? [new InkArea([$triangle], 0.0)] : [],
            [new InkLine($triangle, InkLine::NARROW, closed: true)],
            [new InkText($x + 2.2, $y - 0.4, $words, self::TEXT_MM)],
        );
    }

    /** A ring about a place, with words in it. */
    public static function bubble(float $x, float $y, string $words): SheetInk
    {
        $ring = self::circle($x, $y, max(self::BUBBLE_MM, (new InkText(0.0, 0.0, $words, self::TEXT_MM))->width() / 2.0 + 1.0));

        return new SheetInk(
            [],
            [new InkLine($ring, InkLine::NARROW, closed: true)],
            [new InkText($x, $y + self::TEXT_MM / 2.0, $words, self::TEXT_MM, 'middle')],
        );
    }

    /**
     * An end of a cutting line (ISO 128-3): wide, with an arrow the way one looks and the name of the section.
     *
     * @param array{float, float} $end mm of paper
     * @param array{float, float} $on a unit vector from there along the line
     * @param array{float, float} $looks a unit vector
     */
    public static function cut(array $end, array $on, array $looks, string $name): SheetInk
    {
        $at = static fn (float $along, float $ahead): array => [
            $end[0] + $along * $on[0] + $ahead * $looks[0], $end[1] + $along * $on[1] + $ahead * $looks[1],
        ];
        [$x, $y] = $at(-1.0, -2.6);

        return new SheetInk(
            [new InkArea([[$at(0.0, 6.5), $at(-1.1, 3.0), $at(1.1, 3.0)]], 0.0)],
            [new InkLine([$at(0.0, 0.0), $at(7.0, 0.0)], InkLine::BROAD), new InkLine([$at(0.0, 0.0), $at(0.0, 3.0)], InkLine::MEDIUM)],
            [new InkText($x, $y + 1.75, $name, 3.5, 'middle', bold: true)],
        );
    }

    /** @param float $bearing of up on the sheet, degrees clockwise from north */
    public static function north(float $x, float $y, float $bearing): SheetInk
    {
        $angle = deg2rad(-$bearing);
        $at = static fn (float $right, float $ahead): array => [
            $x + $right * cos($angle) + $ahead * sin($angle), $y + $right * sin($angle) - $ahead * cos($angle),
        ];
        $r = self::NORTH_MM;
        [$nx, $ny] = $at(0.0, $r + 2.0);

        return new SheetInk(
            [new InkArea([[$at(0.0, $r), $at(0.45 * $r, -0.7 * $r), $at(0.0, -0.35 * $r)]], 0.0)],
            [
                new InkLine(self::circle($x, $y, $r), InkLine::NARROW, closed: true),
                new InkLine([$at(0.0, $r), $at(-0.45 * $r, -0.7 * $r), $at(0.0, -0.35 * $r)], InkLine::NARROW, closed: true),
            ],
            [new InkText($nx, $ny + 1.25, 'N', self::TEXT_MM, 'middle', bold: true)],
        );
    }

    /** A bar of five round lengths: whoever copies the sheet at another size can still measure on it. */
    public static function scaleBar(float $scale, float $x, float $y, Written $written): SheetInk
    {
        $one = $written->isMetric() ? 1000.0 : 304.8;
        // Of 1, 2 and 5 times ten as often as is wanted the largest that is no longer than 12 mm of paper.
        $times = 0.01;
        foreach ([0.02, 0.05, 0.1, 0.2, 0.5, 1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0, 200.0, 500.0] as $try) {
            $times = $try * $one / $scale <= 12.0 ? $try : $times;
        }
        $part = $times * $one / $scale;
        [$areas, $texts] = [[], []];
        for ($k = 0; $k <= self::BAR_PARTS; ++$k) {
            $at = $x + $k * $part;
            if ($k < self::BAR_PARTS && 0 === $k % 2) {
                $areas[] = new InkArea([[[$at, $y], [$at + $part, $y], [$at + $part, $y + self::BAR_MM], [$at, $y + self::BAR_MM]]], 0.0);
            }
            $figure = rtrim(rtrim(number_format($k * $times, 2, '.', ''), '0'), '.');
            $words = self::BAR_PARTS === $k ? $figure.($written->isMetric() ? ' m' : ' ft') : $figure;
            $texts[] = new InkText($at, $y - 1.0, $words, self::TEXT_MM, 'middle');
        }
        $long = self::BAR_PARTS * $part;
        $foot = $y + self::BAR_MM;

        return new SheetInk(
            $areas,
            [new InkLine([[$x, $y], [$x + $long, $y], [$x + $long, $foot], [$x, $foot]], InkLine::NARROW, closed: true)],
            $texts,
        );
    }

    /** @return non-empty-list<array{float, float}> */
    private static function circle(float $x, float $y, float $r): array
    {
        return array_map(static fn (int $k): array => [
            $x + $r * cos(2.0 * \M_PI * $k / self::ROUND), $y + $r * sin(2.0 * \M_PI * $k / self::ROUND),
        ], range(0, self::ROUND - 1));
    }
}
