<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Sheets;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Sheets\Internal\FreePaper;

/** What is free on paper is what nothing lies on: held against looking at all there is, one by one, by sampling. */
final class FreePaperTest extends TestCase
{
    /** @return array{float, float, float, float} */
    private static function box(float $size): array
    {
        [$x, $y] = [mt_rand(-5000, 25_000) / 100.0, mt_rand(-5000, 25_000) / 100.0];

        return [$x, $y, $x + mt_rand(50, 100) / 100.0 * $size, $y + mt_rand(50, 100) / 100.0 * $size / 2.0];
    }

    /**
     * @param array{float, float, float, float} $box
     *
     * @return non-empty-list<array{float, float}>
     */
    private static function ring(array $box): array
    {
        return [[$box[0], $box[1]], [$box[2], $box[1]], [$box[2], $box[3]], [$box[0], $box[3]]];
    }

    /**
     * Whether a line comes into a box, told by many places along it.
     *
     * @param array{float, float} $a
     * @param array{float, float} $b
     * @param array{float, float, float, float} $box
     */
    private static function comesInto(array $a, array $b, array $box, float $more): bool
    {
        for ($k = 0; $k <= 4000; ++$k) {
            [$x, $y] = [$a[0] + $k / 4000.0 * ($b[0] - $a[0]), $a[1] + $k / 4000.0 * ($b[1] - $a[1])];
            if ($x > $box[0] - $more && $x < $box[2] + $more && $y > $box[1] - $more && $y < $box[3] + $more) {
                return true;
            }
        }

        return false;
    }

    public function testABoxIsFreeWhereNeitherWordsNorLinesNorWhatIsFilledLiesInIt(): void
    {
        [$free, $taken] = [0, 0];
        for ($seed = 1; $seed <= 40; ++$seed) {
            mt_srand($seed);
            $paper = new FreePaper();
            [$boxes, $lines, $filled] = [[], [], []];
            for ($k = 0; $k < 12; ++$k) {
                $boxes[] = $box = self::box(18.0);
                $paper->take(self::ring($box));
                $lines[] = $line = [[mt_rand(-50, 250), mt_rand(-50, 250)], [mt_rand(-50, 250), mt_rand(-50, 250)]];
                $paper->line([[(float) $line[0][0], (float) $line[0][1]], [(float) $line[1][0], (float) $line[1][1]]]);
            }
            $filled[] = $shape = self::ring(self::box(120.0));
            $paper->fill($shape);
            $paper->line($shape, true);
            foreach ($shape as $i => $corner) {
                $lines[] = [$corner, $shape[($i + 1) % 4]];
            }
            for ($try = 0; $try < 25; ++$try) {
                $box = self::box(12.0);
                $is = $paper->isFree(self::ring($box), 0.5);
                $middle = [($box[0] + $box[2]) / 2.0, ($box[1] + $box[3]) / 2.0];
                $onWords = array_filter($boxes, static fn (array $b): bool => $box[0] - 0.5 < $b[2] && $box[2] + 0.5 > $b[0] && $box[1] - 0.5 < $b[3] && $box[3] + 0.5 > $b[1]);
                $onLines = array_filter($lines, static fn (array $l): bool => self::comesInto([(float) $l[0][0], (float) $l[0][1]], [(float) $l[1][0], (float) $l[1][1]], $box, 0.45));
                $onFilled = Polygon::contains($shape, ...$middle);
                if ([] !== $onWords || [] !== $onLines || $onFilled) {
                    self::assertFalse($is, "seed $seed, try $try: something lies there");
                    ++$taken;
                } elseif ([] === array_filter($lines, static fn (array $l): bool => self::comesInto([(float) $l[0][0], (float) $l[0][1]], [(float) $l[1][0], (float) $l[1][1]], $box, 0.55))) {
                    self::assertTrue($is, "seed $seed, try $try: nothing lies there");
                    ++$free;
                }
            }
        }
        self::assertGreaterThan(150, $free);
        self::assertGreaterThan(200, $taken);
    }

    public function testALineIsLeftOutWhereWordsStandAndIsThereOtherwise(): void
    {
        for ($seed = 1; $seed <= 60; ++$seed) {
            mt_srand($seed);
            $paper = new FreePaper();
            $boxes = [];
            for ($k = 0; $k < 15; ++$k) {
                $boxes[] = $box = self::box(25.0);
                $paper->take(self::ring($box));
            }
            $isUpright = 0 === $seed % 2;
            $at = mt_rand(0, 20_000) / 100.0;
            [$from, $to] = $isUpright ? [[$at, -40.0], [$at, 240.0]] : [[240.0, $at], [-40.0, $at]];
            $pieces = $paper->beside($from, $to, 0.3);
            $along = $isUpright ? 1 : 0;
            for ($k = 0; $k <= 700; ++$k) {
                $place = -40.0 + 280.0 * $k / 700.0;
                $p = $isUpright ? [$at, $place] : [$place, $at];
                $isDrawn = [] !== array_filter($pieces, static fn (array $s): bool => $place >= $s[0][$along] && $place <= $s[1][$along]);
                $near = static fn (float $more): bool => [] !== array_filter(
                    $boxes,
                    static fn (array $b): bool => $p[0] > $b[0] - $more && $p[0] < $b[2] + $more && $p[1] > $b[1] - $more && $p[1] < $b[3] + $more,
                );
                if ($near(0.299)) {
                    self::assertFalse($isDrawn, "seed $seed at $place");
                } elseif (!$near(0.301)) {
                    self::assertTrue($isDrawn, "seed $seed at $place");
                }
            }
        }
    }

    public function testALeaderThatWouldRunThroughWordsIsTold(): void
    {
        $paper = new FreePaper();
        $paper->take([[10.0, 10.0], [20.0, 10.0], [20.0, 13.0], [10.0, 13.0]]);
        self::assertTrue($paper->runsThrough([0.0, 0.0], [30.0, 23.0]));
        self::assertTrue($paper->runsThrough([15.0, 0.0], [15.0, 30.0]));
        self::assertFalse($paper->runsThrough([0.0, 0.0], [30.0, 9.0]));
        self::assertFalse($paper->runsThrough([0.0, 11.0], [9.0, 11.0]), 'It ends before them.');
    }
}
