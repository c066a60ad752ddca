<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Escape;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Escape\ShortestWays;
use Plinth\Core\Escape\WalkedFloor;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Tests\Fitting\Noise;
use Plinth\Core\Tests\Outside;

/**
 * Ways on foot are the shortest there are: held against visibility graphs of GEOS, of which every line was asked for.
 *
 * @phpstan-import-type Shape from Overlay
 */
final class ShortestWaysTest extends TestCase
{
    private const PLANS = 220;

    /**
     * Rooms in rows with doorways between most of them, things that stand about, all turned somehow.
     *
     * @return array{cells: list<Shape>, exits: list<array{float, float}>, places: list<array{float, float}>}
     */
    private static function plan(int $seed): array
    {
        Noise::seed($seed);
        $turn = Noise::uniform(0.0, 3.0);
        $turned = static fn (float $x, float $y): array => [cos($turn) * $x - sin($turn) * $y, sin($turn) * $x + cos($turn) * $y];
        $box = static fn (float $x1, float $y1, float $x2, float $y2): array => [$turned($x1, $y1), $turned($x2, $y1), $turned($x2, $y2), $turned($x1, $y2)];
        [$columns, $rows] = [1 + $seed % 3, 1 + intdiv($seed, 3) % 3];
        [$cells, $exits] = [[], []];
        for ($i = 0; $i < $columns; ++$i) {
            for ($j = 0; $j < $rows; ++$j) {
                [$x, $y] = [5000.0 * $i, 4000.0 * $j];
                $things = [];
                $count = (int) Noise::uniform(0.0, 3.99);
                for ($k = 0; $k < $count; ++$k) {
                    [$cx, $cy, $w, $d, $a] = [
                        $x + Noise::uniform(300, 4500), $y + Noise::uniform(300, 3500), Noise::uniform(200, 1500), Noise::uniform(200, 700), Noise::uniform(0, 6),
                    ];
                    $things[] = array_map(
                        static fn (array $p): array => $turned($cx + cos($a) * $p[0] - sin($a) * $p[1], $cy + sin($a) * $p[0] + cos($a) * $p[1]),
                        [[-$w / 2, -$d / 2], [$w / 2, -$d / 2], [$w / 2, $d / 2], [-$w / 2, $d / 2]],
                    );
                }
                array_push($cells, ...Overlay::difference([$box($x, $y, $x + 4800.0, $y + 3800.0)], $things));
                foreach ([[$i + 1, $j], [$i, $j + 1]] as [$k, $l]) {
                    if ($k >= $columns || $l >= $rows || Noise::uniform(0, 1) < 0.2) {
                        continue;
                    }
                    $at = Noise::uniform(100, 2600);
                    $cells[] = ['outer' => $k > $i ? $box($x + 4800.0, $y + $at, $x + 5000.0, $y + $at + 900.0) : $box($x + $at, $y + 3800.0, $x + $at + 900.0, $y + 4000.0), 'holes' => []];
                }
                if (0 === $i && (0 === $j || Noise::uniform(0, 1) < 0.3)) {
                    $exits[] = $turned($x, $y + Noise::uniform(200, 3600));
                }
            }
        }
        $places = [];
        while (\count($places) < 25) {
            $p = $turned(Noise::uniform(0, 5000.0 * $columns), Noise::uniform(0, 4000.0 * $rows));
            foreach ($cells as $cell) {
                if (Polygon::contains($cell['outer'], ...$p) && [] === array_filter($cell['holes'], static fn (array $h): bool => Polygon::contains($h, ...$p))) {
                    $places[] = $p;
                }
            }
        }

        return ['cells' => $cells, 'exits' => $exits, 'places' => $places];
    }

    public function testTheyAreThoseOfAVisibilityGraph(): void
    {
        $plans = array_map(self::plan(...), range(1, self::PLANS));
        $theirs = Outside::ask('visibility.py', $plans);
        [$compared, $none] = [0, 0];
        foreach ($plans as $n => $plan) {
            [$floor, $ways] = self::ways($plan);
            self::assertIsArray($theirs[$n]);
            self::assertIsArray($theirs[$n]['far']);
            foreach ($plan['places'] as $k => [$x, $y]) {
                $their = $theirs[$n]['far'][$k];
                $ours = self::from($floor, $ways, $x, $y);
                if (null === $their) {
                    self::assertNull($ours, "plan $n, place $k");
                    ++$none;
                } else {
                    self::assertIsFloat($their);
                    // A GEOS line may cut a corner by the hundred-thousandth of a millimetre that is allowed to it.
                    self::assertEqualsWithDelta($their, $ours ?? -1.0, 1e-3, "plan $n, place $k");
                    ++$compared;
                }
            }
        }
        self::assertGreaterThan(4000, $compared);
        self::assertGreaterThan(50, $none);
    }

    /** The worst place of a cell is as far as is said, by the visibility graph as well, and no other of five hundred is further. */
    public function testNoPlaceIsFurtherThanTheWorst(): void
    {
        [$asked, $said, $inside] = [[], [], 0];
        for ($n = 301; $n <= 340; ++$n) {
            $plan = self::plan($n);
            [$floor, $ways] = self::ways($plan);
            $plan['places'] = [];
            foreach (array_keys($plan['cells']) as $cell) {
                $triangles = array_keys($floor->cells, $cell, true);
                $worst = [] === $triangles ? null : $ways->furthest($triangles);
                if (null === $worst) {
                    continue;
                }
                [$mm, $at, $in] = $worst;
                $inside += [] === array_filter($triangles, static fn (int $t): bool => \in_array($at, array_map(static fn (int $v): array => $floor->at[$v], $floor->triangles[$t]), true)) ? 1 : 0;
                self::assertEqualsWithDelta($mm, $ways->from($in, ...$at)[0] ?? -1.0, 1e-6);
                $plan['places'][] = $at;
                $said[] = $mm;
                for ($k = 0; $k < 500; ++$k) {
                    [$u, $v, $t] = [Noise::uniform(0, 1), Noise::uniform(0, 1), $triangles[$k % \count($triangles)]];
                    [$u, $v] = $u + $v > 1.0 ? [1.0 - $u, 1.0 - $v] : [$u, $v];
                    [$a, $b, $c] = array_map(static fn (int $v): array => $floor->at[$v], $floor->triangles[$t]);
                    $there = $ways->from($t, $a[0] + $u * ($b[0] - $a[0]) + $v * ($c[0] - $a[0]), $a[1] + $u * ($b[1] - $a[1]) + $v * ($c[1] - $a[1]));
                    self::assertLessThanOrEqual($mm + 0.1, $there[0] ?? \INF, "plan $n, cell $cell");
                }
            }
            $asked[] = $plan;
        }
        $theirs = array_merge(...array_map(static fn (mixed $a): array => (array) ((array) $a)['far'], Outside::ask('visibility.py', $asked)));
        self::assertCount(\count($said), $theirs);
        self::assertEqualsWithDelta($said, $theirs, 1e-3);
        self::assertGreaterThan(150, \count($said));
        self::assertGreaterThan(5, $inside, 'Some lie between corners, which looking at corners alone would miss.');
    }

    /**
     * @param array{cells: list<Shape>, exits: list<array{float, float}>, places: list<array{float, float}>} $plan
     *
     * @return array{WalkedFloor, ShortestWays}
     */
    private static function ways(array $plan): array
    {
        $floor = new WalkedFloor();
        [, $exits] = $floor->add($plan['cells'], $plan['exits']);

        return [$floor, ShortestWays::to($floor, array_fill_keys(array_filter($exits, is_int(...)), 0.0))];
    }

    private static function from(WalkedFloor $floor, ShortestWays $ways, float $x, float $y): ?float
    {
        foreach ($floor->triangles as $t => $corners) {
            $ring = array_map(static fn (int $v): array => $floor->at[$v], $corners);
            if (Polygon::contains($ring, $x, $y)) {
                return $ways->from($t, $x, $y)[0] ?? null;
            }
        }
        self::fail("No triangle holds $x, $y.");
    }
}
