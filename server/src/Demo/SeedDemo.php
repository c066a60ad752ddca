<?php

declare(strict_types=1);

namespace Plinth\Server\Demo;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Sheets\PaperSize;
use Plinth\Core\Sheets\PlanningSet;
use Plinth\Server\Account\AccountController;
use Plinth\Server\Account\User;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Change;
use Plinth\Server\Change\ChangeState;
use Plinth\Server\Change\Operations;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Recorder;
use Plinth\Server\Change\RowId;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Exchange\PlanRows;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Project\Project;
use Plinth\Server\Project\Side;
use Plinth\Server\Project\Storey;
use Plinth\Server\Sheets\Sheets;
use Plinth\Server\Sheets\SheetSubjects;
use Plinth\Server\Source\BringIn;
use Plinth\Server\Source\Delivery;
use Plinth\Server\Source\Drawing;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Uid\Uuid;
use Symfony\Component\Uid\UuidV7;

/**
 * A ringing station's ground floor, half done: trued, outer walls and two rooms traced, the rest left to do. And a lodge as it stands, to
 * be walked through.
 */
#[AsCommand('plinth:demo', 'Puts the demo account and its projects in place, once.')]
final readonly class SeedDemo
{
    /** From left to right as one looks at them, mm; the second section goes on further back behind a jog. */
    private const LODGE_SIDES = [
        ['South', 0, 0, 11_000, 0, ''],
        ['East', 11_000, 0, 11_000, 7600, ''],
        ['North', 11_000, 7600, 0, 7600, ''],
        ['West', 0, 7600, 0, 0, ''],
        ['Section A', -500, 3000, 11_500, 3000, ''],
        ['Section B', 8000, -500, 6500, 8100, '8000 4000; 6500 4000'],
    ];

    /** What the lodge's walls are built of, mm. */
    private const LODGE_BUILD_UPS = ['brick, lime plaster inside' => 300.0, 'stud, boarded both sides' => 140.0, 'stud, boarded' => 100.0];
    /** The lodge's site from its south-west corner: lengths and bearings as a deed has them; up on its plan lies so far from north. */
    private const LODGE_SITE = [
        ['28.040', '105°33\'59"'], ['26.542', '15°44\'23"'], ['18.668', '290°11\'46"'], ['12.369', '268°27\'50"'], ['24.520', '190°09\'46"'],
    ];
    private const LODGE_UP = '12°30\'00"';

    /** Where hand picks fall beside the true point, px, in turn. */
    private const HAND = [[0.21, -0.14], [-0.18, 0.22], [0.12, 0.19], [-0.24, -0.11], [0.08, -0.2]];

    public function __construct(
        private EntityManagerInterface $entities,
        private Recorder $recorder,
        private Operations $operations,
        private BringIn $bringIn,
        private SheetSubjects $subjects,
        private ClockInterface $clock,
        private string $projectDir,
    ) {
    }

    public function __invoke(): int
    {
        if (null !== $this->entities->getRepository(User::class)->findOneBy(['email' => AccountController::DEMO_EMAIL])) {
            return 0;
        }
        $user = new User(AccountController::DEMO_EMAIL, 'Demo Desk');
        $this->entities->persist($user);
        $lodge = $this->project('Reedmace Lodge, as it stands', $user);
        $project = $this->project('Sallow Fen ringing station', $user);
        $this->building($lodge->id(), $user);
        $this->work($project->id(), $user);

        return 0;
    }

    private function project(string $name, User $user): Project
    {
        $project = Project::of(new UuidV7(), $user);
        $project->take(
            new RowValues(
                [
                    'name' => $name,
                    'purpose' => 'planning',
                    'unit' => 'mm',
                    'shows' => 'mm',
                    'course' => 75.0,
                    'unitLength' => 225.0,
                    'joint' => 10.0,
                ],
                '',
                ['name', 'purpose', 'unit', 'shows', 'areas', 'course', 'unitLength', 'joint'],
            ),
        );
        $this->entities->persist($project);
        $this->entities->flush();

        return $project;
    }

    /** A lodge of two storeys from its exact plan: walls, openings, floors, ceilings, a roof with a gable, a chimney, a porch. */
    private function building(Uuid $project, User $user): void
    {
        $plan = PlanReader::read((string) file_get_contents($this->projectDir.'/demo/reedmace-lodge.json'));
        $this->change($project, $user, 'The lodge as it stands', $rows = PlanRows::of($plan));
        $this->buildUps($project, $user, $rows);
        $sides = [];
        foreach (self::LODGE_SIDES as [$name, $fromX, $fromY, $toX, $toY, $jogs]) {
            $sides[] = ['do' => 'add', 'type' => 'side', 'id' => (string) new UuidV7(), 'values' => [
                'name' => $name, 'fromX' => $fromX, 'fromY' => $fromY, 'toX' => $toX, 'toY' => $toY,
                'cut' => str_starts_with($name, 'Section'), 'jogs' => $jogs,
            ]];
        }
        $this->change($project, $user, 'Its sides, and two sections', $sides);
        // Corners of the walls and their eaves are known from the plan: what shows them is laid on them.
        $corners = [[0, 0], [11_000, 0], [11_000, 5300], [0, 5300]];
        $this->held($project, $user, $sides[0]['id'], 'lodge-south-side', 'photograph from the garden', 'perspective', $corners);
        $this->held($project, $user, $sides[2]['id'], 'lodge-north-elevation', 'scan of an elevation', 'similar', $corners);
        $this->detail($project, $user);
        $this->site($project, $user);
        $this->sheets($project, $user);
    }

    /** @param list<array<string, mixed>> $rows that were added */
    private function buildUps(Uuid $project, User $user, array $rows): void
    {
        $operations = [];
        foreach (self::LODGE_BUILD_UPS as $name => $thickness) {
            $operations[] = ['do' => 'add', 'type' => 'buildUp', 'id' => $id = (string) new UuidV7(), 'values' => [
                'name' => $name, 'thickness' => $thickness, 'height' => null, 'enclosing' => true,
            ]];
            foreach ($rows as ['type' => $type, 'id' => $wall, 'values' => $values]) {
                if ('wall' === $type && \is_array($values) && $thickness === $values['thickness'] && true === $values['enclosing']) {
                    $operations[] = ['do' => 'set', 'type' => 'wall', 'id' => $wall, 'values' => ['buildUp' => $id]];
                }
            }
        }
        $this->change($project, $user, 'What its walls are built of', $operations);
    }

    private function site(Uuid $project, User $user): void
    {
        $ground = $this->entities->getRepository(Storey::class)->findBy(['project' => $project], ['elevation' => 'ASC'])[0];
        $boundary = (string) new UuidV7();
        $add = [['do' => 'add', 'type' => 'boundary', 'id' => $boundary, 'values' => [
            'storey' => $ground->id()->toRfc4122(), 'name' => 'Reedmace plot', 'x' => -7000, 'y' => -9000, 'up' => self::LODGE_UP,
        ]]];
        foreach (self::LODGE_SITE as $i => [$length, $bearing]) {
            $add[] = ['do' => 'add', 'type' => 'leg', 'id' => (string) new UuidV7(), 'values' => [
                'boundary' => $boundary, 'order' => $i, 'length' => $length, 'bearing' => $bearing, 'unit' => 'm',
            ]];
        }
        $this->change($project, $user, 'The site, by its deed', $add);
    }

    /** A planning set as it is proposed. */
    private function sheets(Uuid $project, User $user): void
    {
        $of = $this->entities->find(Project::class, (new RowId($project, $project))->criteria()) ?? throw new \LogicException('It was made just now.');
        $set = PlanningSet::of($this->subjects->of($of), PaperSize::A2, false, static fn (): string => (string) new UuidV7());
        $add = [];
        foreach (Sheets::rows($set, $this->clock->now()->format('Y-m-d'), 'Reedmace Trust', 'Demo Desk') as ['id' => $id, 'values' => $values, 'views' => $views]) {
            $add[] = ['do' => 'add', 'type' => 'printSheet', 'id' => $id, 'values' => $values];
            foreach ($views as $view) {
                $add[] = ['do' => 'add', 'type' => 'sheetView', ...$view];
            }
        }
        $this->change($project, $user, 'A planning set', $add);
    }

    /** A detail at its own scale, trued by its own figures; the side that it stands on has no line. */
    private function detail(Uuid $project, User $user): void
    {
        [$side, $name] = [new UuidV7(), 'lodge-cornice-detail'];
        $this->change($project, $user, 'A side for details', [
            ['do' => 'add', 'type' => 'side', 'id' => (string) $side, 'values' => ['name' => 'Details']],
        ]);
        $delivery = new Delivery($this->projectDir."/demo/$name.jpg", "$name.jpg", null, $side, origin: 'scan of a detail');
        $drawing = self::touched($this->bringIn->take($project, $user, $delivery, new UuidV7()), Drawing::class);
        $truth = $this->truth($name);
        $picks = [new UuidV7(), new UuidV7(), new UuidV7()];
        $stated = [['do' => 'set', 'type' => 'drawing', 'id' => (string) $drawing, 'values' => ['kind' => 'detail', 'model' => 'similar']]];
        foreach ([[0, 220], [180, 220], [0, 0]] as $k => $at) {
            $stated[] = self::pick($picks[$k], $drawing, $truth, $at, self::HAND[$k]);
        }
        foreach (['180' => 1, '220' => 2] as $text => $to) {
            $stated[] = ['do' => 'add', 'type' => 'knownLength', 'id' => (string) new UuidV7(), 'values' => [
                'drawing' => (string) $drawing, 'a' => (string) $picks[0], 'b' => (string) $picks[$to], 'text' => (string) $text, 'unit' => 'mm', 'standing' => 'figured', 'ends' => 'outer face', 'along' => 'straight', 'heldOut' => false,
            ]];
        }
        $stated[] = ['do' => 'add', 'type' => 'gridPick', 'id' => (string) new UuidV7(), 'values' => [
            'drawing' => (string) $drawing, 'a' => (string) $picks[0], 'b' => (string) $picks[1], 'axis' => 'x',
        ]];
        $this->change($project, $user, 'True a detail up by its figures', $stated);
    }

    /**
     * A picture that a side is held against, laid on places of the side that are known.
     *
     * @param list<array{int, int}> $corners mm on the side
     */
    private function held(Uuid $project, User $user, string $side, string $name, string $origin, string $model, array $corners): void
    {
        $delivery = new Delivery($this->projectDir."/demo/$name.jpg", "$name.jpg", null, Uuid::fromString($side), origin: $origin);
        $drawing = self::touched($this->bringIn->take($project, $user, $delivery, new UuidV7()), Drawing::class);
        $truth = $this->truth($name);
        $places = [];
        $picks = [];
        foreach ($corners as $k => $corner) {
            $picks[] = $pick = new UuidV7();
            $places[] = self::pick($pick, $drawing, $truth, $corner, self::HAND[$k]);
            $places[] = ['do' => 'add', 'type' => 'controlPoint', 'id' => (string) new UuidV7(), 'values' => [
                'drawing' => (string) $drawing, 'pick' => (string) $pick, 'x' => $corner[0], 'y' => $corner[1], 'text' => 'corner of the walls',
            ]];
        }
        foreach ([['11 000', 0, 1], ['5 300', 0, 3]] as [$text, $from, $to]) {
            $places[] = ['do' => 'add', 'type' => 'knownLength', 'id' => (string) new UuidV7(), 'values' => [
                'drawing' => (string) $drawing, 'a' => (string) $picks[$from], 'b' => (string) $picks[$to], 'text' => $text, 'unit' => 'mm', 'standing' => 'figured', 'ends' => 'outer face', 'along' => 'straight', 'heldOut' => false,
            ]];
        }
        $places[] = ['do' => 'add', 'type' => 'levelMark', 'id' => (string) new UuidV7(), 'values' => [
            'drawing' => (string) $drawing, 'pick' => (string) $picks[1], 'kind' => 'finished floor', 'name' => 'finished floor', 'text' => '0', 'unit' => 'mm',
        ]];
        $this->change($project, $user, 'Lay a drawing on known places', [
            ['do' => 'set', 'type' => 'drawing', 'id' => (string) $drawing, 'values' => ['kind' => 'elevation', 'model' => $model]],
            ...$places,
        ]);
    }

    private function work(Uuid $project, User $user): void
    {
        [$storey, $loft, $side] = [new UuidV7(), new UuidV7(), new UuidV7()];
        $this->recorder->record($project, $user, new UuidV7(), 'Begin', static function (Workspace $workspace) use ($storey, $loft, $side): void {
            $workspace->add(Storey::class, $storey, ['name' => 'Ground', 'elevation' => 0.0, 'height' => 2700.0], 'storey');
            $workspace->add(Side::class, $side, ['name' => 'South'], 'side');
            $workspace->add(Storey::class, $loft, ['name' => 'Net loft', 'elevation' => 2700.0, 'height' => 2400.0], 'storey');
        }, state: ChangeState::Left);
        $brought = $this->bringIn->take(
            $project,
            $user,
            new Delivery(
                $this->projectDir.'/demo/sallow-fen-ground.jpg',
                'sallow-fen-ground.jpg',
                $storey,
                origin: 'survey of the station, flat-bed scan',
            ),
            new UuidV7(),
        );
        $drawing = self::touched($brought, Drawing::class);
        $this->outside($project, $user, $storey, $side, $drawing);
        $truth = $this->truth('sallow-fen-ground');
        $pick = 0;
        foreach ([
            ['13 200', [0, 0], [13200, 0], false],
            ['8 600', [0, 0], [0, 8600], false],
            ['11 000', [0, 8600], [11000, 8600], true],
        ] as [$text, $from, $to, $heldOut]) {
            [$a, $b] = [new UuidV7(), new UuidV7()];
            $this->change($project, $user, $heldOut ? 'Check length' : 'Known length', [
                self::pick($a, $drawing, $truth, $from, self::HAND[$pick++ % 5]),
                self::pick($b, $drawing, $truth, $to, self::HAND[$pick++ % 5]),
                ['do' => 'add', 'type' => 'knownLength', 'id' => (string) new UuidV7(), 'values' => [
                    'drawing' => (string) $drawing, 'a' => (string) $a, 'b' => (string) $b, 'text' => $text, 'unit' => 'mm', 'standing' => 'figured', 'ends' => 'outer face', 'along' => 'straight', 'heldOut' => $heldOut,
                ]],
            ]);
        }
        [$a, $b] = [new UuidV7(), new UuidV7()];
        $this->change($project, $user, 'Grid line', [
            self::pick($a, $drawing, $truth, [0, 0], self::HAND[2]),
            self::pick($b, $drawing, $truth, [13200, 0], self::HAND[3]),
            [
                'do' => 'add',
                'type' => 'gridPick',
                'id' => (string) new UuidV7(),
                'values' => ['drawing' => (string) $drawing, 'a' => (string) $a, 'b' => (string) $b, 'axis' => 'x'],
            ],
        ]);
        $this->entities->clear();
        $fit = $this->entities->find(
            DrawingFit::class,
            (new RowId($project, $drawing))->criteria(),
        )?->pixelToMm() ?? throw new \LogicException('A drawing has a fit.');
        $model = static fn (array $p): array => $fit->toMm($truth->toPixel(new Point(...JsonValue::of($p)->pair())))->toArray();
        $base = ['storey' => (string) $storey, 'drawing' => (string) $drawing, 'evidence' => 'ink'];
        $ids = static fn (int $n): array => array_map(static fn (): string => (string) new UuidV7(), range(1, $n));
        $outer = $ids(5);
        $this->change($project, $user, 'Trace a wall', [['do' => 'trace', 'trace' => $base + [
            'points' => array_map($model, [
                [0, 0], [13200, 0], [13200, 6400], [11000, 8600], [0, 8600],
            ]), 'nodes' => $ids(5), 'walls' => $outer, 'closed' => true, 'line' => 'right', 'thickness' => 300,
        ]]]);
        [[$fromX, $fromY], [$toX, $toY]] = [$model([0, 0]), $model([13200, 0])];
        $this->change($project, $user, 'Line of a side', [[
            'do' => 'set',
            'type' => 'side',
            'id' => (string) $side,
            'values' => ['fromX' => $fromX, 'fromY' => $fromY, 'toX' => $toX, 'toY' => $toY],
        ]]);
        [$spine] = $spineIds = $ids(1);
        $this->change($project, $user, 'Trace a wall', [['do' => 'trace', 'trace' => $base + [
            'points' => array_map(
                $model,
                [[5200, 300], [5200, 8300]],
            ), 'nodes' => $ids(2), 'walls' => $spineIds, 'line' => 'centre', 'thickness' => 200,
            'joins' => [['point' => 0, 'wall' => $outer[0]], ['point' => 1, 'wall' => $outer[3]]],
        ]]]);
        $this->change($project, $user, 'Trace a wall', [['do' => 'trace', 'trace' => $base + [
            'points' => array_map(
                $model,
                [[300, 3900], [5100, 3900]],
            ), 'nodes' => $ids(2), 'walls' => $ids(1), 'line' => 'centre', 'thickness' => 120,
            'joins' => [['point' => 0, 'wall' => $outer[4]], ['point' => 1, 'wall' => $spine]],
        ]]]);
        foreach ([['D01', $outer[0], 6100, 1010], ['D02', $spine, 2300, 910]] as [$number, $wall, $along, $width]) {
            // The traced wall starts half a thickness inside the outer corner, as the truth's does.
            $this->change($project, $user, 'Door', [['do' => 'add', 'type' => 'opening', 'id' => (string) new UuidV7(), 'values' => [
                'wall' => $wall, 'kind' => 'door', 'offset' => $along - 150.0, 'width' => (float) $width, 'sill' => 0.0, 'height' => 2040.0, 'hand' => 'left', 'swing' => 'left', 'number' => $number,
            ]]]);
        }
        foreach ([['Net store', [2700, 2600]], ['Drying room', [2700, 7300]]] as [$name, $at]) {
            [$x, $y] = $model($at);
            $this->change($project, $user, 'Name a room', [[
                'do' => 'add',
                'type' => 'room',
                'id' => (string) new UuidV7(),
                'values' => [
                    'storey' => (string) $storey,
                    'drawing' => (string) $drawing,
                    'name' => $name,
                    'number' => '',
                    'x' => $x,
                    'y' => $y,
                ],
            ]]);
        }
    }

    /** Its south side as a photograph, and a sketch of the site: brought in, still to be trued. */
    private function outside(Uuid $project, User $user, Uuid $storey, Uuid $side, Uuid $plan): void
    {
        $demo = $this->projectDir.'/demo/';
        $this->bringIn->take(
            $project,
            $user,
            new Delivery($demo.'station-south-side.jpg', 'station-south-side.jpg', null, $side, origin: 'photograph from the lane'),
            new UuidV7(),
        );
        $site = self::touched(
            $this->bringIn->take(
                $project,
                $user,
                new Delivery($demo.'station-site-sketch.jpg', 'station-site-sketch.jpg', $storey, origin: 'survey of the station, sketch'),
                new UuidV7(),
            ),
            Drawing::class,
        );
        $this->change($project, $user, 'Lay a drawing below', [
            ['do' => 'set', 'type' => 'drawing', 'id' => (string) $site, 'values' => ['kind' => 'site', 'hidden' => true, 'order' => 0]],
            ['do' => 'set', 'type' => 'drawing', 'id' => (string) $plan, 'values' => ['order' => 1]],
        ]);
    }

    /** @param list<array<string, mixed>> $operations */
    private function change(Uuid $project, User $user, string $title, array $operations): void
    {
        $this->recorder->record(
            $project,
            $user,
            new UuidV7(),
            $title,
            fn (Workspace $w) => $this->operations->apply(
                $w,
                JsonValue::of($operations, 'operations')->items(),
                Base::latest($this->entities->getConnection(), $project, $user),
            ),
        );
    }

    /**
     * @param array{int, int} $at mm of the truth
     * @param array{float, float} $hand px
     *
     * @return array<string, mixed>
     */
    private static function pick(Uuid $id, Uuid $drawing, PixelToMm $truth, array $at, array $hand): array
    {
        $px = $truth->toPixel(new Point($at[0], $at[1]));

        return [
            'do' => 'add',
            'type' => 'pick',
            'id' => (string) $id,
            'values' => ['drawing' => (string) $drawing, 'x' => $px->x + $hand[0], 'y' => $px->y + $hand[1], 'sigmaPx' => 0.5],
        ];
    }

    /** @param class-string<ProjectRow> $class */
    private static function touched(Change $change, string $class): Uuid
    {
        foreach ($change->touches() as $touch) {
            if ($touch['type'] === $class::kind()->name) {
                return Uuid::fromString($touch['id']);
            }
        }
        throw new \LogicException('The change has no such row.');
    }

    private function truth(string $name): PixelToMm
    {
        $file = (string) file_get_contents($this->projectDir."/demo/$name.truth.json");
        $numbers = [];
        foreach (JsonValue::parse($file)->get('pixelToMm')->items() as $row) {
            foreach ($row->items() as $cell) {
                $numbers[] = $cell->number();
            }
        }
        [$a, $b, $c, $d, $e, $f, $g, $h, $i] = $numbers;

        return PixelToMm::ofMatrix([$a, $b, $c, $d, $e, $f, $g, $h, $i]);
    }
}
