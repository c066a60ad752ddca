<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Network\Crowding;
use Plinth\Core\Plan\Network\Effort;
use Plinth\Core\Plan\Network\Exception\TooMuchToDerive;
use Plinth\Core\Plan\Network\WholeStorey;

/** What a plan costs hangs on what is drawn, not on how far it reaches; what would cost too much is known beforehand. */
final class CrowdingTest extends TestCase
{
    /** Held against counting every pair. */
    public function testPairsAreCountedAsTheyAre(): void
    {
        mt_srand(7);
        for ($case = 0; $case < 40; ++$case) {
            $box = static function (): array {
                [$x, $y] = [mt_rand(0, 9000), mt_rand(0, 9000)];

                return [(float) $x, (float) $y, (float) ($x + mt_rand(0, 1500)), (float) ($y + mt_rand(0, 1500))];
            };
            $new = array_map($box, range(1, mt_rand(1, 30)));
            $there = array_map($box, range(1, mt_rand(1, 30)));
            $pairs = 0;
            $all = [...$new, ...$there];
            foreach ($all as $i => $a) {
                foreach ($all as $k => $b) {
                    $pairs += $i < $k && $i < \count($new) && $a[0] <= $b[2] && $b[0] <= $a[2] && $a[1] <= $b[3] && $b[1] <= $a[3] ? 1 : 0;
                }
            }
            self::assertSame($pairs, Crowding::check($new, $there, 100_000));
            if ($pairs > 0) {
                try {
                    Crowding::check($new, $there, $pairs - 1);
                    self::fail('One too many was let pass.');
                } catch (TooMuchToDerive $e) {
                    self::assertStringContainsString((string) ($pairs - 1), $e->getMessage());
                }
            }
        }
    }

    /** A room with a wall of a kilometre at an angle beside it costs no more than the room alone, and comes out the same. */
    public function testAFarReachingWallCostsNoMoreThanAnother(): void
    {
        $room = [
            Plans::wall('s', 0, 0, 4000, 0),
            Plans::wall('e', 4000, 0, 4000, 3000),
            Plans::wall('n', 4000, 3000, 0, 3000),
            Plans::wall('w', 0, 3000, 0, 0),
        ];
        $alone = Derivation::of(Plans::storey($room));
        $far = Plans::storey([
            ...$room,
            Plans::wall('far', 10_000, -5000, 717_000, 702_000),
            Plans::wall('further', -900_000, 20_000, 80_000, 999_000),
        ]);
        $derivation = new Derivation(new WholeStorey($far), new Effort(500));
        [$walls, $regions] = $derivation->everything();
        self::assertCount(6, $walls);
        self::assertCount(1, $regions);
        self::assertSame($alone->regions[0]->netAreaMm2, $regions[0]->netAreaMm2);
        self::assertEqualsWithDelta(hypot(707_000, 707_000) * 200, $walls['far']->areaMm2, 1.0);
    }

    /** A wall at any slope meets what stands in its way, however far along. */
    public function testWhatStandsInTheWayOfALongWallIsMet(): void
    {
        mt_srand(3);
        foreach ([0.0, 0.001, 0.3, 1.2, \M_PI_2, 2.5, 3.1] as $angle) {
            [$ux, $uy] = [cos($angle), sin($angle)];
            $walls = [Plans::wall('long', 0, 0, 400_000 * $ux, 400_000 * $uy)];
            for ($i = 0; $i < 60; ++$i) {
                $at = mt_rand(2000, 398_000);
                $walls[] = Plans::wall(
                    "across$i",
                    $at * $ux - 1500 * $uy,
                    $at * $uy + 1500 * $ux,
                    $at * $ux + 1500 * $uy,
                    $at * $uy - 1500 * $ux,
                );
            }
            foreach (\array_slice($walls, 1) as $across) {
                $affected = (new Derivation(new WholeStorey(Plans::storey($walls))))->affected([$across->box()]);
                self::assertContains('long', $affected, "$across->id at ".rad2deg($angle).'°');
            }
        }
    }

    public function testADerivationEndsAtItsLimit(): void
    {
        $walls = [];
        for ($i = 0; $i < 80; ++$i) {
            $walls[] = Plans::wall("a$i", 0, $i * 500, 40_000, $i * 500);
            $walls[] = Plans::wall("b$i", $i * 500, 0, $i * 500, 40_000);
        }
        $asked = 0;
        (new Derivation(new WholeStorey(Plans::storey($walls)), new Effort(1_000_000, static function () use (&$asked): void {
            ++$asked;
        })))->everything();
        self::assertGreaterThan(0, $asked, 'It asks whether it may go on.');
        $this->expectException(TooMuchToDerive::class);
        (new Derivation(new WholeStorey(Plans::storey($walls)), new Effort(1000)))->everything();
    }
}
