<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Numerics;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Numerics\Logistic;
use Plinth\Core\Numerics\Median;

final class EvidenceTest extends TestCase
{
    public function testTheMiddleOfSomeNumbers(): void
    {
        self::assertSame(0.0, Median::of([]));
        self::assertSame(3.0, Median::of([9.0, 3.0, 1.0]));
        self::assertSame(2.5, Median::of(['a' => 4.0, 'b' => 1.0, 'c' => 3.0, 'd' => 2.0]));
        self::assertSame(3.0, Median::upper([4, 1, 3, 2]));
        self::assertSame(0.0, Median::upper([]));
    }

    /** ln 3 to one is three in four: odds of 3 : 1, by definition. */
    public function testWeighedEvidenceIsTheLogarithmOfOdds(): void
    {
        $weights = ['' => -log(2.0), 'a' => log(6.0), 'b' => -1.0];
        self::assertEqualsWithDelta(1.0 / 3.0, Logistic::of($weights, []), 1e-12);
        self::assertEqualsWithDelta(0.75, Logistic::of($weights, ['a' => 1.0]), 1e-12);
        self::assertEqualsWithDelta(0.75, Logistic::of($weights, ['a' => 1.0, 'unweighed' => 5.0]), 1e-12);
        self::assertGreaterThan(0.0, Logistic::of($weights, ['b' => 1e9]));
        self::assertLessThan(1.0, Logistic::of($weights, ['a' => 1e9]));
    }
}
