<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Enclosure;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Plan\Model\FireClass;
use Plinth\Core\Plan\Model\Hatch;

/** Classes are told apart by their colour with any kind of colour vision, and by their hatch without any. */
final class FireClassTest extends TestCase
{
    /** What somebody sees without one kind of cones, in linear light: Machado, Oliveira, Fernandes, IEEE TVCG 15 (2009), from memory. */
    private const SEEN = [
        'with all' => [[1.0, 0.0, 0.0], [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]],
        'without long' => [[0.152286, 1.052583, -0.204868], [0.114503, 0.786281, 0.099216], [-0.003882, -0.048116, 1.051998]],
        'without middle' => [[0.367322, 0.860646, -0.227968], [0.280085, 0.672501, 0.047413], [-0.011820, 0.042940, 0.968881]],
        'without short' => [[1.255528, -0.076749, -0.178779], [-0.078411, 0.930809, 0.147602], [0.004733, 0.691367, 0.303900]],
    ];
    /** CIE 1976 difference from which two colours beside each other are not mistaken; common practice, no source */
    private const APART = 10.0;

    /**
     * Lightness and both chromas (CIE 1976 L*a*b*) under D65 of a colour of sRGB (IEC 61966-2-1), as somebody sees it.
     *
     * @param array{int, int, int} $rgb
     * @param list<array{float, float, float}> $seen
     *
     * @return array{float, float, float}
     */
    private static function lab(array $rgb, array $seen): array
    {
        $linear = array_map(static fn (int $c): float => $c <= 10 ? $c / 255.0 / 12.92 : (($c / 255.0 + 0.055) / 1.055) ** 2.4, $rgb);
        $light = array_map(static fn (array $row): float => max(0.0, min(1.0, array_sum(array_map(static fn (float $a, float $b): float => $a * $b, $row, $linear)))), $seen);
        [$r, $g, $b] = $light;
        $f = static fn (float $t): float => $t > 216.0 / 24389.0 ? $t ** (1.0 / 3.0) : (24389.0 / 27.0 * $t + 16.0) / 116.0;
        $x = $f((0.4124 * $r + 0.3576 * $g + 0.1805 * $b) / 0.9505);
        $y = $f(0.2126 * $r + 0.7152 * $g + 0.0722 * $b);
        $z = $f((0.0193 * $r + 0.1192 * $g + 0.9505 * $b) / 1.089);

        return [116.0 * $y - 16.0, 500.0 * ($x - $y), 200.0 * ($y - $z)];
    }

    public function testColoursAreToldApartWithAnyKindOfColourVision(): void
    {
        $colours = array_map(static fn (string $c): array => (new FireClass('', '', $c, Hatch::Rising))->rgb(), FireClass::COLOURS);
        foreach (self::SEEN as $how => $seen) {
            foreach ($colours as $i => $one) {
                foreach (\array_slice($colours, $i + 1) as $k => $other) {
                    [$a, $b] = [self::lab($one, $seen), self::lab($other, $seen)];
                    $apart = sqrt(($a[0] - $b[0]) ** 2 + ($a[1] - $b[1]) ** 2 + ($a[2] - $b[2]) ** 2);
                    self::assertGreaterThan(self::APART, $apart, FireClass::COLOURS[$i].' and '.FireClass::COLOURS[$i + 1 + $k]." $how");
                }
            }
        }
        // White is as light as it gets, and black has no light at all.
        self::assertEqualsWithDelta([100.0, 0.0, 0.0], self::lab([255, 255, 255], self::SEEN['with all']), 0.02);
        self::assertEqualsWithDelta([0.0, 0.0, 0.0], self::lab([0, 0, 0], self::SEEN['with all']), 1e-9);
    }

    public function testHatchesAreToldApartInBlackAndWhite(): void
    {
        $said = [];
        foreach (Hatch::cases() as $hatch) {
            self::assertGreaterThanOrEqual(1.0, $hatch->apartMm(), 'Closer ones run together in print.');
            $said[] = implode(' ', [...$hatch->directions(), 'every', $hatch->apartMm()]);
        }
        self::assertSame($said, array_values(array_unique($said)));
    }

    public function testWordsAreReadOnATint(): void
    {
        foreach (FireClass::COLOURS as $colour) {
            $class = new FireClass('', '', $colour, Hatch::Rising);
            // Black on it has a contrast far above 7:1 (WCAG 2.2, 1.4.6), whose lightness by L* is about 60.
            self::assertGreaterThan(85.0, self::lab($class->tint(), self::SEEN['with all'])[0], $colour);
            self::assertSame($colour, \sprintf('#%02x%02x%02x', ...$class->rgb()));
        }
    }
}
