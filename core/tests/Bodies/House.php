<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Bodies;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Objects\ObjectKind;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Dormer;
use Plinth\Core\Plan\Model\FloorVoid;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningHead;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\PitchedRoof;
use Plinth\Core\Plan\Model\PlacedObject;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Shaft;
use Plinth\Core\Plan\Model\Slab;
use Plinth\Core\Plan\Model\Stair;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Sweep;
use Plinth\Core\Plan\Model\SweepAlong;
use Plinth\Core\Plan\Model\Wall;

/** Two storeys of 10 × 6 m under a roof with a gable, with something of everything in them. */
final readonly class House
{
    private const OUTER = [[0, 0], [10_000, 0], [10_000, 6000], [0, 6000]];

    public function __construct(private float $x = 0.0, private float $y = 0.0, private float $degrees = 0.0)
    {
    }

    public function plan(): Plan
    {
        return new Plan([$this->ground(), $this->upper()]);
    }

    public function at(float $x, float $y): Point
    {
        [$cos, $sin] = [cos(deg2rad($this->degrees)), sin(deg2rad($this->degrees))];

        return new Point($this->x + $cos * $x - $sin * $y, $this->y + $sin * $x + $cos * $y);
    }

    /** @param list<array{float|int, float|int}> $corners */
    public function round(array $corners): Contour
    {
        \assert([] !== $corners);

        return new Contour(array_map(fn (array $p): Point => $this->at((float) $p[0], (float) $p[1]), $corners));
    }

    /** @return list<Wall> four round it, one across, and one that is curved */
    public function walls(string $of): array
    {
        $corners = [$this->at(150.0, 150.0), $this->at(9850.0, 150.0), $this->at(9850.0, 5850.0), $this->at(150.0, 5850.0)];

        return [
            new Wall($of.'a', $corners[0], $corners[1], 300.0),
            new Wall($of.'b', $corners[1], $corners[2], 300.0),
            new Wall($of.'c', $corners[2], $corners[3], 300.0),
            new Wall($of.'d', $corners[3], $corners[0], 300.0),
            new Wall($of.'e', $this->at(5000.0, 150.0), $this->at(5000.0, 5850.0), 120.0),
            new Wall($of.'f', $this->at(5000.0, 3000.0), $this->at(9850.0, 3000.0), 120.0, rise: 400.0),
        ];
    }

    /** @param non-empty-list<array{int, int}> $corners */
    private static function profile(array $corners): Contour
    {
        return new Contour(array_map(static fn (array $p): Point => new Point((float) $p[0], (float) $p[1]), $corners));
    }

    private function ground(): Storey
    {
        return new Storey('g', 'Ground', 0.0, 2800.0, $this->walls('g'), [
            new Opening('g1', 'ga', OpeningKind::Door, 1000.0, 900.0, 0.0, 2100.0),
            new Opening('g2', 'ga', OpeningKind::Window, 3000.0, 1200.0, 900.0, 1200.0, head: OpeningHead::Semicircle),
            new Opening('g3', 'gb', OpeningKind::Window, 2000.0, 800.0, 1000.0, 800.0, head: OpeningHead::Round),
            new Opening('g4', 'gf', OpeningKind::Door, 1000.0, 900.0, 0.0, 2100.0, leaf: 'double'),
            new Opening('g5', 'gc', OpeningKind::Window, 2000.0, 1500.0, 600.0, 1600.0, head: OpeningHead::Segment, rise: 200.0),
            new Opening('g6', 'ge', OpeningKind::Opening, 3500.0, 1000.0),
        ], columns: [
            ...(0.0 === $this->degrees ? [new Column('gk', $this->at(2500.0, 3000.0), 300.0, 300.0)] : []),
            new Column('gr', $this->at(7500.0, 4500.0), 300.0, 300.0, true),
        ], floors: [new Slab('gfl', $this->round(self::OUTER), 0.0, 250.0, 50.0)], ceilings: [
            new Slab('gce', $this->round([[300, 300], [9700, 300], [9700, 5700], [300, 5700]]), 2450.0, 25.0),
        ], objects: [
            new PlacedObject('table', ObjectKind::Table->value, $this->at(6500.0, 1500.0), 30.0 + $this->degrees, 1400.0, 800.0, 740.0),
            new PlacedObject('bath', ObjectKind::Bath->value, $this->at(1500.0, 4800.0), $this->degrees, 1700.0, 750.0, 550.0),
            new PlacedObject('shelves', ObjectKind::Shelves->value, $this->at(8000.0, 500.0), $this->degrees, 900.0, 300.0, 1900.0),
        ], shafts: [new Shaft('ch', $this->round([[3000, 2500], [3600, 2500], [3600, 3100], [3000, 3100]]), 0.0, 8500.0)], stairs: [new Stair(
            'st',
            [$this->at(5600.0, 5200.0), $this->at(9100.0, 5200.0)],
            [],
            800.0,
            16,
            nosing: 20.0,
            leftRail: true,
            reaches: 'u',
        )]);
    }

    private function upper(): Storey
    {
        return new Storey(
            'u',
            'Upper',
            2800.0,
            2600.0,
            $this->walls('u'),
            [new Opening('u1', 'ub', OpeningKind::Window, 1300.0, 1200.0, 900.0, 3000.0)],
            floors: [new Slab('ufl', $this->round(self::OUTER), 0.0, 250.0)],
            voids: [new FloorVoid('uv', $this->round([[1000, 1000], [2000, 1000], [2000, 3000], [1000, 3000]]))],
            roofs: [new PitchedRoof(
                'r',
                $this->round(self::OUTER)->corners,
                [40.0, null, 40.0, 35.0],
                [500.0, 300.0, 500.0, 500.0],
                2600.0,
                200.0,
            )],
            dormers: [new Dormer('do', $this->round([[6000, 400], [7800, 400], [7800, 2400], [6000, 2400]]), 4200.0, 150.0)],
            sweeps: [
                new Sweep('gutter', self::profile([[0, -70], [90, -70], [110, 0], [0, 0]]), SweepAlong::Eaves, of: 'r'),
                new Sweep('cornice', self::profile([[0, 0], [30, 20], [40, 90], [0, 120]]), SweepAlong::Walls, level: 700.0),
            ],
        );
    }
}
