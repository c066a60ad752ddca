<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Fitting;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Fitting\Agreed;
use Plinth\Core\Fitting\Along;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\KnownLength;
use Plinth\Core\Fitting\Model;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Pick;
use Plinth\Core\Geometry\PixelPoint;

/** Figures that nobody has looked at size a drawing by what they agree on; the one that was read wrong is named. */
final class AgreedTest extends TestCase
{
    private const PAIRS = [[0, 1], [2, 3], [0, 2], [1, 3], [0, 4], [5, 1], [4, 1], [2, 5], [6, 3], [7, 1], [4, 6], [5, 7]];
    private const SPOTS = [[300, 300], [2700, 320], [310, 1950], [2690, 1960], [1500, 305], [305, 1200], [1480, 1955], [2695, 1100]];

    public function testWrongFiguresOfAStretchedCopyAreHeldOutAndTheCopyPutRight(): void
    {
        Noise::seed(51);
        $named = $stretched = 0;
        for ($i = 0; $i < 40; ++$i) {
            [$observations, $wrong] = self::copyWith(2, $i);
            $agreed = Agreed::on($observations, self::frame(), FitStart::unknown(), doubtful: self::ids($observations));
            $out = $agreed->heldOut;
            sort($out);
            $named += $out === $wrong ? 1 : 0;
            $stretched += Model::Stretched === $agreed->fit->model && abs(
                $agreed->fit->stretch()['x'] / $agreed->fit->stretch()['y'] - 1.0 / 1.02,
            ) < 0.001 ? 1 : 0;
        }
        self::assertGreaterThanOrEqual(36, $named, 'Two of twelve may hide behind each other.');
        self::assertGreaterThanOrEqual(36, $stretched);
    }

    public function testNothingIsHeldOutWhereAllAgreeNorWhatSomebodyHasStated(): void
    {
        Noise::seed(52);
        for ($i = 0; $i < 40; ++$i) {
            [$good] = self::copyWith(0, $i);
            self::assertSame([], Agreed::on($good, self::frame(), FitStart::unknown(), doubtful: self::ids($good))->heldOut);
            [$bad, $wrong] = self::copyWith(1, $i);
            $others = array_values(array_diff(self::ids($bad), $wrong));
            self::assertNotContains($wrong[0], Agreed::on($bad, self::frame(), FitStart::unknown(), doubtful: $others)->heldOut);
        }
    }

    public function testWhereTooMuchDisagreesTheFiguresAreLeftAsTheyAre(): void
    {
        Noise::seed(53);
        for ($i = 0; $i < 20; ++$i) {
            [$observations] = self::copyWith(7, $i);
            $agreed = Agreed::on($observations, self::frame(), FitStart::unknown(), doubtful: self::ids($observations));
            self::assertLessThanOrEqual(2, \count($agreed->heldOut), 'A fifth of twelve.');
        }
    }

    private static function frame(): PageFrame
    {
        return new PageFrame(3000.0, 2200.0);
    }

    /**
     * A copy whose width came out 2 % too large, with some figures a tenth of themselves wrong.
     *
     * @return array{Observations, list<string>}
     */
    private static function copyWith(int $wrong, int $from): array
    {
        $picks = array_map(static fn (int $k, array $s): Pick => new Pick(
            "p$k",
            new PixelPoint($s[0] + Noise::normal(0.3), $s[1] + Noise::normal(0.3)),
            0.3,
        ), array_keys(self::SPOTS), self::SPOTS);
        $lengths = $ids = [];
        foreach (self::PAIRS as $n => [$a, $b]) {
            [[$ax, $ay], [$bx, $by]] = [self::SPOTS[$a], self::SPOTS[$b]];
            $mm = 5.0 * hypot(($bx - $ax) / 1.02, $by - $ay);
            $isWrong = ($n * 5 + $from) % \count(self::PAIRS) < $wrong;
            $lengths[] = new KnownLength("l$n", "p$a", "p$b", round($mm / 10.0) * 10.0 * ($isWrong ? 1.1 : 1.0), 10.0 / sqrt(12.0), Along::Straight);
            $ids = $isWrong ? [...$ids, "l$n"] : $ids;
        }
        sort($ids);

        return [new Observations($picks, $lengths), $ids];
    }

    /** @return list<string> */
    private static function ids(Observations $observations): array
    {
        return array_map(static fn (KnownLength $l): string => $l->id, $observations->lengths);
    }
}
