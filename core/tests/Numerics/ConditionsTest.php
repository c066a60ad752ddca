<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Numerics;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Numerics\Conditions;
use Plinth\Core\Numerics\DisjointSets;
use Plinth\Core\Tests\Outside;

final class ConditionsTest extends TestCase
{
    /** Reference: the full system solved densely by NumPy (general-purpose library), 300 random sparse systems. */
    public function testCorrectionsAndCovariancesAreThoseOfTheWholeSystem(): void
    {
        $seed = false === getenv('SEED') ? 1 : (int) getenv('SEED');
        mt_srand($seed);
        $random = static fn (): float => 2.0 * mt_rand() / mt_getrandmax() - 1.0;
        [$cases, $all, $counts] = [[], [], []];
        for ($i = 0; $i < 300; ++$i) {
            $variables = mt_rand(2, 14);
            $variances = array_map(static fn (): float => 10.0 ** $random(), range(1, $variables));
            $truth = array_map(static fn (): float => 10.0 * $random(), $variances);
            $conditions = new Conditions($variances);
            [$taken, $misfits] = [[], []];
            for ($k = mt_rand(1, 2 * $variables); $k > 0; --$k) {
                $row = [];
                for ($n = mt_rand(1, 4); $n > 0; --$n) {
                    $row[mt_rand(0, $variables - 1)] = [1.0, -1.0, 0.5, 0.75][mt_rand(0, 3)];
                }
                // All of them hold at one place, so that a sum of others asks for what these leave it.
                $misfit = array_sum(array_map(static fn (int $v, float $f): float => $f * $truth[$v], array_keys($row), $row));
                $number = $conditions->count();
                $dependence = $conditions->take($row, $misfit);
                if (null === $dependence) {
                    $taken[$number] = $row;
                    $misfits[] = $misfit;
                    continue;
                }
                self::assertEqualsWithDelta(0.0, $dependence->by, 1e-5, "seed $seed, system $i");
                $sum = [];
                foreach ($dependence->shares as $number => $share) {
                    foreach ($taken[$number] as $variable => $factor) {
                        $sum[$variable] = ($sum[$variable] ?? 0.0) + $share * $factor;
                    }
                }
                foreach (array_keys($sum + $row) as $variable) {
                    self::assertEqualsWithDelta(
                        $row[$variable] ?? 0.0,
                        $sum[$variable] ?? 0.0,
                        1e-4,
                        'It is the sum that it is told to be.',
                    );
                }
                self::assertNotNull($conditions->take($row, $misfit + 1.0), 'What was refused is refused again.');
            }
            $cases[] = [
                'variances' => $variances,
                'rows' => array_map(
                    static fn (array $row): array => array_map(null, array_keys($row), array_values($row)),
                    array_values($taken),
                ),
                'misfits' => $misfits,
            ];
            $all[] = $conditions;
            $counts[] = \count($taken);
        }
        $theirs = Outside::ask('conditions.py', ['cases' => $cases])['cases'];
        self::assertIsArray($theirs);
        foreach ($all as $i => $conditions) {
            self::assertIsArray($theirs[$i]);
            ['rank' => $rank, 'corrections' => $corrections, 'covariance' => $covariance] = $theirs[$i];
            self::assertIsArray($corrections);
            self::assertIsArray($covariance);
            self::assertSame($rank, $counts[$i], "Taken are as many as say something: seed $seed, system $i");
            $ours = $conditions->corrections();
            foreach ($corrections as $a => $value) {
                self::assertIsFloat($value);
                self::assertEqualsWithDelta($value, $ours[$a] ?? 0.0, 1e-5 + 1e-6 * abs($value), "seed $seed, system $i");
                foreach (array_keys($corrections) as $b) {
                    self::assertIsArray($covariance[$a]);
                    self::assertEqualsWithDelta(
                        $covariance[$a][$b],
                        $conditions->covariance([(int) $a, (int) $b])[0][1],
                        1e-5,
                        "seed $seed, system $i",
                    );
                }
            }
        }
    }

    public function testMisfitsCanBeChangedAfterwards(): void
    {
        $conditions = new Conditions([4.0, 1.0, 1.0]);
        $conditions->take([0 => 1.0, 1 => -1.0], 5.0);
        $conditions->take([1 => 1.0, 2 => -1.0], 0.0);
        $later = new Conditions([4.0, 1.0, 1.0]);
        $later->take([0 => 1.0, 1 => -1.0], 5.0);
        $later->take([1 => 1.0, 2 => -1.0], 2.0);

        self::assertEqualsWithDelta($later->corrections(), $conditions->corrections([1 => 2.0]), 1e-12);
        self::assertEqualsWithDelta(5.0, $conditions->corrections()[0] - $conditions->corrections()[1], 1e-12);
    }

    public function testAConditionOfNothingSaysNothing(): void
    {
        $dependence = (new Conditions([1.0]))->take([], 3.0);

        self::assertNotNull($dependence);
        self::assertSame([[], 3.0], [$dependence->shares, $dependence->by]);
    }

    public function testSetsAreTheSameInWhateverOrderTheyWereUnited(): void
    {
        $pairs = [[7, 3], [1, 9], [3, 9], [20, 21], [5, 20]];
        self::assertSame(self::roots($pairs), self::roots(array_reverse($pairs)));
        self::assertSame([1, 1, 5, 2], [self::roots($pairs)[9], self::roots($pairs)[7], self::roots($pairs)[21], self::roots($pairs)[2]]);
    }

    /**
     * @param list<array{int, int}> $pairs
     *
     * @return list<int>
     */
    private static function roots(array $pairs): array
    {
        $sets = new DisjointSets();
        foreach ($pairs as [$a, $b]) {
            $sets->unite($a, $b);
        }

        return array_map($sets->root(...), range(0, 22));
    }
}
