<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\Finding;
use Plinth\Core\Plan\Editing\Mend;
use Plinth\Core\Plan\Editing\MendAct;
use Plinth\Core\Plan\Model\Wall;

/** Two walls that lie on each other are mended by one act. */
final class MendTest extends TestCase
{
    /** @return iterable<string, array{Wall, Wall, MendAct}> */
    public static function pairs(): iterable
    {
        $long = Plans::wall('long', 0, 0, 10_000, 0);
        yield 'traced twice at a small angle' => [$long, Plans::wall('again', 0, -2, 10_000, 2), MendAct::Merge];
        yield 'traced on beyond its end' => [$long, Plans::wall('on', 6000, 20, 14_000, 10), MendAct::Merge];
        yield 'traced back' => [$long, Plans::wall('back', 11_000, 5, 2000, 5), MendAct::Merge];
        yield 'an end beside a joint' => [$long, Plans::wall('end', 4000, 160, 6000, 1800), MendAct::Trim];
        yield 'side by side, too near' => [$long, Plans::wall('near', 1000, 150, 5000, 150), MendAct::Beside];
        yield 'side by side, below' => [$long, Plans::wall('below', 1000, -120, 5000, -130), MendAct::Beside];
        yield 'crossing flat' => [$long, Plans::wall('flat', 2000, 300, 5000, -90), MendAct::Remove];
        yield 'half of it again, thicker and askew' => [$long, Plans::wall('askew', 5000, 180, 10_000, -170, 300), MendAct::Merge];
        yield 'one is curved' => [$long, new Wall('bow', new Point(0, 50), new Point(10_000, 50), 200.0, rise: 40.0), MendAct::Remove];
    }

    #[DataProvider('pairs')]
    public function testTheActIsChosenByHowTheyLie(Wall $a, Wall $b, MendAct $act): void
    {
        foreach ([[$a, $b], [$b, $a]] as [$one, $two]) {
            $mend = Mend::of($one, $two);
            self::assertSame($act, $mend->act, 'Whichever is named first.');
            self::assertSame([], self::overlaps(self::mended([$a, $b], $mend)), 'Nothing lies on anything afterwards.');
        }
    }

    public function testOneThatBecomesOneReachesAsFarAsBothDid(): void
    {
        $mend = Mend::of(Plans::wall('long', 0, 0, 10_000, 0), Plans::wall('on', 6000, 20, 14_000, 10));
        self::assertEquals([new Point(0, 0), new Point(14_000, 10), null, false], [$mend->from, $mend->to, $mend->takesFrom, $mend->takesTo]);
        $mend = Mend::of(Plans::wall('long', 0, 0, 10_000, 0, 300), Plans::wall('back', 11_000, 5, -500, 5));
        self::assertEquals([new Point(-500, 5), new Point(11_000, 5), false, true], [$mend->from, $mend->to, $mend->takesFrom, $mend->takesTo]);
    }

    public function testOfTwoTheShorterGoesSinceItAloneBoundsLess(): void
    {
        $mend = Mend::of(Plans::wall('long', 0, 0, 10_000, 0, 70), Plans::wall('short', 2000, 300, 5000, -90, 300));
        self::assertSame([MendAct::Remove, 'short', 'long'], [$mend->act, $mend->wall, $mend->other]);
    }

    /** Pairs at random, moved and turned: each overlap that is found says an act, and after it the two no longer lie on each other. */
    public function testEveryOverlapOfTwoStraightWallsIsMendedByItsOneAct(): void
    {
        $seed = false === getenv('SEED') ? 1 : (int) getenv('SEED');
        mt_srand($seed);
        $between = static fn (float $low, float $high): float => $low + ($high - $low) * mt_rand() / mt_getrandmax();
        $found = 0;
        for ($i = 0; $i < 600; ++$i) {
            $turn = $between(0.0, 2.0 * \M_PI);
            $far = 0 === $i % 5 ? 4e8 : 0.0;
            $place = static fn (float $x, float $y): Point => new Point(
                $far + $x * cos($turn) - $y * sin($turn),
                $x * sin($turn) + $y * cos($turn),
            );
            [$x, $y, $lean, $length] = [$between(-1000, 5000), $between(-300, 300), $between(-0.5, 0.5), $between(400, 7000)];
            $walls = [
                new Wall('one', $place(0, 0), $place(6000, 0), $between(80, 400)),
                new Wall('two', $place($x, $y), $place($x + $length * cos($lean), $y + $length * sin($lean)), $between(80, 400)),
            ];
            foreach (self::overlaps($walls) as $finding) {
                ++$found;
                self::assertNotNull($finding->mend, "seed $seed, $i");
                self::assertSame(
                    [],
                    self::overlaps(self::mended($walls, Mend::of(...$walls))),
                    "seed $seed, pair $i, {$finding->mend->value}",
                );
            }
        }
        self::assertGreaterThan(150, $found);
    }

    /**
     * @param list<Wall> $walls
     *
     * @return list<Wall>
     */
    private static function mended(array $walls, Mend $mend): array
    {
        $changed = MendAct::Merge === $mend->act ? $mend->other : $mend->wall;
        $goes = \in_array($mend->act, [MendAct::Merge, MendAct::Remove], true) ? $mend->wall : null;
        $after = [];
        foreach ($walls as $wall) {
            if ($wall->id !== $goes) {
                $corner = $wall->id === $mend->other ? $mend->cornerAtStart : null;
                $at = true === $mend->cutAtStart ? $mend->from : $mend->to;
                $after[] = match (true) {
                    $wall->id === $changed => new Wall($wall->id, $mend->from, $mend->to, $wall->thickness),
                    null !== $corner => new Wall($wall->id, $corner ? $at : $wall->from, $corner ? $wall->to : $at, $wall->thickness),
                    default => $wall,
                };
            }
        }

        return $after;
    }

    /**
     * @param list<Wall> $walls
     *
     * @return list<Finding>
     */
    private static function overlaps(array $walls): array
    {
        return array_values(
            array_filter(Derivation::of(Plans::storey($walls))->findings, static fn (Finding $f): bool => 'walls-overlap' === $f->code),
        );
    }
}
