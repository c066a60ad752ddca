<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Derivation\WallShape;
use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Network\WholeStorey;
use Plinth\Core\Tests\Fitting\Noise;

/** What an edit touches is derived anew and nothing else, and the whole is what a full derivation gives. */
final class EditTest extends TestCase
{
    /** @var array<string, WallShape> */
    private array $walls;
    /** @var array<string, Region> */
    private array $regions;

    public function testAfterAnyEditsTheWholeIsWhatAFullDerivationGives(): void
    {
        for ($seed = 500; $seed < 504; ++$seed) {
            $lines = [];
            foreach (0 === $seed % 2 ? Plans::shaken($seed) : Plans::tangled($seed) as $i => $wall) {
                $lines[$wall->id] = 0 === $i % 10 ? new Wall(
                    $wall->id,
                    $wall->from,
                    $wall->to,
                    $wall->thickness,
                    rise: Noise::uniform(-600, 600),
                ) : $wall;
            }
            $rooms = array_map(
                static fn (int $k): Room => new Room(
                    "room$k",
                    "Room $k",
                    '',
                    new Point(Noise::uniform(0, 16_000), Noise::uniform(0, 10_500)),
                ),
                range(1, 6),
            );
            $plan = new WholeStorey(new Storey('s', 'Ground', 0.0, 2700.0, array_values($lines), [], $rooms));
            $this->takeAll($plan);
            for ($step = 0; $step < 20; ++$step) {
                $touched = $removed = [];
                $id = array_rand($lines);
                $old = $lines[$id] ?? null;
                switch ($step % 5) {
                    case 0: // moved, with what meets it left behind
                        $by = new Point(Noise::uniform(-400, 400), Noise::uniform(-400, 400));
                        $new = $old instanceof Wall ? new Wall(
                            $id,
                            $old->from->plus($by->x, $by->y),
                            $old->to->plus($by->x, $by->y),
                            $old->thickness,
                            rise: $old->rise,
                        ) : null;
                        break;
                    case 1: // gone
                        $new = null;
                        $removed[] = $id;
                        break;
                    case 2: // one that stands free in a room, or crosses some
                        $old = null;
                        $id = "new$seed-$step";
                        $at = new Point(Noise::uniform(500, 15_000), Noise::uniform(500, 9_000));
                        $new = new Wall($id, $at, $at->plus(Noise::uniform(200, 1500), Noise::uniform(-800, 800)), 120.0);
                        break;
                    case 3:
                        $new = $old instanceof Wall ? new Wall($id, $old->from, $old->to, $old->thickness + 60.0, rise: $old->rise) : null;
                        break;
                    default:
                        $old = null;
                        $id = "divider$seed-$step";
                        $at = new Point(Noise::uniform(0, 15_000), Noise::uniform(0, 9_000));
                        $new = new Divider(
                            $id,
                            $at,
                            $at->plus(Noise::uniform(1000, 5000), Noise::uniform(-300, 300)),
                            0 === $step % 2 ? 0.0 : Noise::uniform(-2000, 2000),
                        );
                }
                foreach ([$old, $new] as $line) {
                    if (null !== $line) {
                        $touched[] = $line->box();
                    }
                }
                if (null === $new) {
                    $plan->takeAway($id);
                    unset($lines[$id]);
                    $removed[] = $id;
                } else {
                    $plan->put($new);
                    $lines[$id] = $new;
                }
                $this->follow($plan, $touched, $removed, [$id]);
                $this->assertIsWhole($plan, "seed $seed, step $step");
            }
        }
    }

    public function testThePlansSizeDoesNotMatterForAnEdit(): void
    {
        $visited = [];
        foreach ([[8, 13], [18, 29], [42, 63]] as [$columns, $rows]) {
            $walls = Plans::shaken(77, $columns, $rows);
            $middle = $walls[intdiv(\count($walls), 2)];
            $plan = new WholeStorey(Plans::storey($walls));
            $derivation = new Derivation($plan);
            $affected = $derivation->affected([$middle->box()]);
            $derivation->shapes($affected);
            $derivation->regionsOf($affected);
            $visited[\count($walls)] = $derivation->visited();
        }
        self::assertLessThan(150, max($visited));
    }

    private function takeAll(WholeStorey $plan): void
    {
        $derived = Derivation::of($plan->storey());
        $this->walls = $derived->walls;
        $this->regions = [];
        foreach ($derived->regions as $region) {
            $this->regions[$region->key] = $region;
        }
    }

    /**
     * @param list<array{float, float, float, float}> $touched
     * @param list<string> $removed
     * @param list<string> $changed removed ones among them
     */
    private function follow(WholeStorey $plan, array $touched, array $removed, array $changed): void
    {
        $derivation = new Derivation($plan);
        $affected = $derivation->affected($touched);
        $this->walls = array_merge($this->walls, $derivation->shapes($affected));
        foreach ($removed as $id) {
            unset($this->walls[$id]);
        }
        $gone = [];
        $lost = [];
        $still = array_diff($affected, $changed);
        foreach ($this->regions as $key => $region) {
            if ([] === array_intersect($region->walls, [...$affected, ...$removed])) {
                continue;
            }
            $gone[] = $key;
            if ([] === array_intersect($region->walls, $still)) {
                $lost = [...$lost, ...\array_slice(array_values(array_diff($region->walls, $changed)), 0, 1)];
            }
        }
        $derivation->look([[-1e6, -1e6, 1e6, 1e6]]);
        $told = $derivation->regionsOf([...$affected, ...$lost]);
        foreach ($told['holding'] as [$point, $lines]) {
            foreach ($this->regions as $key => $region) {
                if ([] !== array_intersect($region->walls, $lines) && Polygon::contains($region->polygon, $point->x, $point->y)) {
                    $gone[] = $key;
                }
            }
        }
        foreach ($gone as $key) {
            unset($this->regions[$key]);
        }
        $this->regions += $told['regions'];
    }

    private function assertIsWhole(WholeStorey $plan, string $where): void
    {
        $kept = [$this->walls, $this->regions];
        $this->takeAll($plan);
        [$walls, $regions] = $kept;
        self::assertSame(self::sorted($this->regions), self::sorted($regions), $where);
        self::assertEqualsCanonicalizing(array_keys($this->walls), array_keys($walls), $where);
        foreach ($this->walls as $id => $shape) {
            self::assertEqualsWithDelta($shape->areaMm2, $walls[$id]->areaMm2, 1e-3, "$where, wall $id");
            self::assertSameSize($shape->stretches, $walls[$id]->stretches, "$where, wall $id");
        }
    }

    /**
     * @param array<string, Region> $regions
     *
     * @return list<string>
     */
    private static function sorted(array $regions): array
    {
        $told = array_map(static fn (Region $r): string => \sprintf('%.1f %s', $r->netAreaMm2, $r->room->id ?? ''), array_values($regions));
        sort($told, \SORT_STRING);

        return $told;
    }
}
