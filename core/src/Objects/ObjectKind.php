<?php

declare(strict_types=1);

namespace Plinth\Core\Objects;

/**
 * Things that stand in rooms, drawn by us as boxes of true size. What each usually measures: common practice, no source.
 *
 * A reach is from and to: a part of the whole and mm added to it, twice.
 *
 * @phpstan-type Reach array{float, float, float, float}
 */
enum ObjectKind: string
{
    case Bed = 'bed';
    case DoubleBed = 'double bed';
    case Table = 'table';
    case Chair = 'chair';
    case Armchair = 'armchair';
    case Sofa = 'sofa';
    case Desk = 'desk';
    case Wardrobe = 'wardrobe';
    case Shelves = 'shelves';
    case BaseUnit = 'base unit';
    case WallUnit = 'wall unit';
    case SinkUnit = 'sink unit';
    case Cooker = 'cooker';
    case Refrigerator = 'refrigerator';
    case WashingMachine = 'washing machine';
    case Bath = 'bath';
    case ShowerTray = 'shower tray';
    case Washbasin = 'washbasin';
    case WaterCloset = 'water closet';
    case Stove = 'stove';
    case Car = 'car';
    case Person = 'person';

    /** @return array{float, float, float, float} width, depth, height, and how far above the floor it hangs; mm */
    public function usual(): array
    {
        return match ($this) {
            self::Bed => [900.0, 2000.0, 500.0, 0.0],
            self::DoubleBed => [1600.0, 2000.0, 500.0, 0.0],
            self::Table => [1400.0, 800.0, 740.0, 0.0],
            self::Chair => [450.0, 500.0, 850.0, 0.0],
            self::Armchair => [800.0, 800.0, 800.0, 0.0],
            self::Sofa => [1900.0, 850.0, 800.0, 0.0],
            self::Desk => [1400.0, 700.0, 740.0, 0.0],
            self::Wardrobe => [1200.0, 600.0, 2000.0, 0.0],
            self::Shelves => [900.0, 300.0, 1900.0, 0.0],
            self::BaseUnit, self::SinkUnit => [600.0, 600.0, 900.0, 0.0],
            self::WallUnit => [600.0, 330.0, 700.0, 1450.0],
            self::Cooker => [600.0, 600.0, 900.0, 0.0],
            self::Refrigerator => [600.0, 650.0, 1800.0, 0.0],
            self::WashingMachine => [600.0, 600.0, 850.0, 0.0],
            self::Bath => [1700.0, 750.0, 550.0, 0.0],
            self::ShowerTray => [900.0, 900.0, 150.0, 0.0],
            self::Washbasin => [550.0, 450.0, 200.0, 650.0],
            self::WaterCloset => [380.0, 650.0, 800.0, 0.0],
            self::Stove => [500.0, 400.0, 900.0, 0.0],
            self::Car => [1800.0, 4400.0, 1500.0, 0.0],
            self::Person => [500.0, 300.0, 1700.0, 0.0],
        };
    }

    /**
     * The boxes it is made of, each from and to along its width, its depth from the front, and its height: a part of the whole, and mm
     * added to that.
     *
     * @return non-empty-list<array{Reach, Reach, Reach}>
     */
    public function boxes(): array
    {
        $all = [0.0, 0.0, 1.0, 0.0];
        // From the left end, from the right end, and of the middle between both, so many mm wide.
        $low = static fn (float $mm): array => [0.0, 0.0, 0.0, $mm];
        $high = static fn (float $mm): array => [1.0, -$mm, 1.0, 0.0];
        $inner = static fn (float $mm): array => [0.0, $mm, 1.0, -$mm];
        $between = static fn (float $from, float $to): array => [$from, 0.0, $to, 0.0];
        $legs = static function (float $thick, float $up) use ($low, $high): array {
            $legs = [];
            foreach ([$low($thick), $high($thick)] as $x) {
                foreach ([$low($thick), $high($thick)] as $y) {
                    $legs[] = [$x, $y, [0.0, 0.0, $up, 0.0]];
                }
            }

            return $legs;
        };
        $tub = static fn (float $rim, float $bottom): array => [
            [$all, $all, [0.0, 0.0, 0.0, $bottom]],
            [$low($rim), $all, $all], [$high($rim), $all, $all],
            [$inner($rim), $low($rim), $all], [$inner($rim), $high($rim), $all],
        ];

        return match ($this) {
            self::Bed, self::DoubleBed => [
                [$all, $all, $between(0.0, 0.75)], [$inner(60.0), $inner(60.0), $between(0.75, 0.95)],
                [$inner(120.0), [1.0, -480.0, 1.0, -120.0], $between(0.95, 1.0)],
            ],
            self::Table => [[$all, $all, $high(40.0)], ...$legs(60.0, 0.94)],
            self::Desk => [[$all, $all, $high(30.0)], [$low(30.0), $all, $between(0.0, 0.95)], [$high(400.0), $all, $between(0.0, 0.95)]],
            self::Chair => [[$all, $all, $between(0.47, 0.53)], ...$legs(35.0, 0.47), [$all, $high(35.0), $between(0.53, 1.0)]],
            self::Armchair, self::Sofa => [
                [$all, $all, $between(0.0, 0.5)], [$all, $high(180.0), $between(0.5, 1.0)],
                [$low(160.0), [0.0, 0.0, 1.0, -180.0], $between(0.5, 0.72)], [$high(160.0), [0.0, 0.0, 1.0, -180.0], $between(0.5, 0.72)],
            ],
            self::Shelves => [
                [$low(20.0), $all, $all], [$high(20.0), $all, $all], [$inner(20.0), $high(10.0), $all],
                ...array_map(
                    static fn (int $i): array => [
                        $inner(20.0),
                        [0.0, 0.0, 1.0, -10.0],
                        [$i / 6.0, $i < 6 ? 0.0 : -20.0, $i / 6.0, $i < 6 ? 20.0 : 0.0],
                    ],
                    range(0, 6),
                ),
            ],
            self::BaseUnit => [
                [$all, [0.0, 40.0, 1.0, 0.0], $low(100.0)], [$all, [0.0, 20.0, 1.0, 0.0], [0.0, 100.0, 1.0, -40.0]],
                [$all, $all, $high(40.0)],
            ],
            self::SinkUnit => [
                [$all, [0.0, 40.0, 1.0, 0.0], $low(100.0)], [$all, [0.0, 20.0, 1.0, 0.0], [0.0, 100.0, 1.0, -220.0]],
                [$low(60.0), $all, $high(220.0)], [$high(60.0), $all, $high(220.0)],
                [$inner(60.0), $low(90.0), $high(220.0)], [$inner(60.0), $high(110.0), $high(220.0)],
            ],
            self::Bath => $tub(70.0, 150.0),
            self::ShowerTray => $tub(50.0, 60.0),
            self::Washbasin => $tub(50.0, 60.0),
            self::WaterCloset => [
                [$between(0.2, 0.8), [0.0, 120.0, 1.0, -180.0], $between(0.0, 0.35)], [$all, [0.0, 0.0, 1.0, -180.0], $between(0.35, 0.52)],
                [$all, $high(180.0), $between(0.35, 1.0)],
            ],
            self::Car => [
                [$inner(60.0), $all, $between(0.2, 0.6)], [$inner(140.0), $between(0.18, 0.72), $between(0.6, 1.0)],
                ...array_merge(...array_map(static fn (array $x): array => [
                    [$x, $between(0.12, 0.26), $between(0.0, 0.42)], [$x, $between(0.74, 0.88), $between(0.0, 0.42)],
                ], [$low(200.0), $high(200.0)])),
            ],
            self::Person => [
                [$between(0.2, 0.46), $between(0.25, 0.75), $between(0.0, 0.48)],
                [$between(0.54, 0.8), $between(0.25, 0.75), $between(0.0, 0.48)],
                [$between(0.0, 1.0), $between(0.2, 0.8), $between(0.48, 0.84)],
                [$between(0.34, 0.66), $between(0.2, 0.8), $between(0.84, 1.0)],
            ],
            default => [[$all, $all, $all]],
        };
    }
}
