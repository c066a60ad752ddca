<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Network\Network;
use Plinth\Core\Plan\Network\Pieces;
use Plinth\Core\Plan\Network\WholeStorey;

final class NetworkTest extends TestCase
{
    public function testEndsWithinAMillimetreAreOneNode(): void
    {
        $network = self::network([Plans::wall('a', 0, 0, 1000, 0), Plans::wall('b', 1000.6, 0.5, 2000, 0)]);
        self::assertCount(3, $network->nodes);
        self::assertCount(4, self::network([Plans::wall('a', 0, 0, 1000, 0), Plans::wall('b', 1001.2, 0, 2000, 0)])->nodes);
    }

    public function testATEndSplitsItsHost(): void
    {
        $network = self::network([Plans::wall('host', 0, 0, 4000, 0), Plans::wall('branch', 1500, 0, 1500, 3000)]);
        self::assertEqualsCanonicalizing(['host' => 2, 'branch' => 1], array_count_values(array_column($network->edges, 'wall')));
        self::assertSame(4000.0, $this->length($network, 'host'));
    }

    public function testASlantedEndGoesOnAlongItsOwnDirection(): void
    {
        // Comes in at 45° and stops 60 mm short of the centre line, inside the body.
        $network = self::network([Plans::wall('host', 0, 0, 4000, 0), Plans::wall('branch', 3060, 2060, 1060, 60)]);
        self::assertContains([1000.0, 0.0], array_map(static fn (array $n): array => [round($n[0], 6), round($n[1], 6)], $network->nodes));
    }

    public function testAnEndThatStopsOutsideTheBodyStaysFree(): void
    {
        $network = self::network([Plans::wall('host', 0, 0, 4000, 0), Plans::wall('branch', 1500, 102, 1500, 3000)]);
        self::assertCount(2, $network->edges);
    }

    public function testManyWallsThroughOnePointShareIt(): void
    {
        $walls = array_map(static function (int $k): Wall {
            $a = $k * \M_PI / 5;

            return Plans::wall("w$k", 5000 * cos($a), 5000 * sin($a), -5000 * cos($a), -5000 * sin($a), 100);
        }, range(0, 4));
        $network = self::network($walls);
        self::assertCount(11, $network->nodes, 'Ten ends and the one crossing.');
        self::assertCount(10, $network->edges);
    }

    public function testWallsOnEachOtherAreKeptOnceAndNamed(): void
    {
        $network = self::network([Plans::wall('thin', 0, 0, 4000, 0, 100), Plans::wall('thick', 1000, 0, 3000, 0, 300)]);
        self::assertCount(3, $network->edges);
        self::assertSame([['thick', 'thin']], array_map(static fn (array $o): array => [$o[0], $o[1]], $network->overlaps));
        self::assertEqualsCanonicalizing([50.0, 150.0, 50.0], array_column($network->edges, 'half'), 'The thicker one shows.');
    }

    public function testTheOrderOfWallsDoesNotMatter(): void
    {
        $walls = Plans::shaken(12);
        [$forward, $backward] = [self::network($walls), self::network(array_reverse($walls))];
        self::assertSameSize($forward->nodes, $backward->nodes);
        self::assertSameSize($forward->edges, $backward->edges);
    }

    /** @param list<Wall> $walls */
    private static function network(array $walls): Network
    {
        $pieces = new Pieces(new WholeStorey(Plans::storey($walls)));
        $network = new Network($pieces);
        foreach ($pieces->near(-1e6, -1e6, 1e6, 1e6) as $piece) {
            $network->along($piece);
        }

        return $network;
    }

    private function length(Network $network, string $wall): float
    {
        $sum = 0.0;
        foreach ($network->edges as $edge) {
            if ($edge['wall'] === $wall) {
                $sum += hypot(
                    $network->nodes[$edge['to']][0] - $network->nodes[$edge['from']][0],
                    $network->nodes[$edge['to']][1] - $network->nodes[$edge['from']][1],
                );
            }
        }

        return $sum;
    }
}
