<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;

/**
 * Whatever is asked is judged: nothing that comes in makes the server fail. PLINTH_FUZZ says how many requests are sent, PLINTH_SEED
 * which; a failure names the seed and the request.
 */
final class FuzzTest extends TestCase
{
    private const HOSTILE = [
        null, true, false, 0, -1, 1, 0.5, -0.0, 2_147_483_647, 2_147_483_648, 4_294_967_296, \PHP_INT_MAX, \PHP_INT_MIN, 1e7, 1e9, 1e15, 1e300, -1e300, 5e-324, '', ' ', '0', 'a', "\0", "a\0b", "line\nline", "\u{202E}", "\u{FFFF}",
        '%00', "' OR 1=1 --", '../../etc/passwd', '<b>', '1e400', 'NaN', '{}', [], [[]], ['x' => 1], [1, 2], [null, null], ['a', 'b'], '00000000-0000-0000-0000-000000000000', 'ffffffff-ffff-ffff-ffff-ffffffffffff', 'not-a-uuid',
    ];
    private const TEXTS = [
        "12'-6\"", '3543', '4.2 m 30°', 'N 30 E', '1:50', 'mm', 'ft', 'planning', 'plan', 'left', 'right', 'centre', 'door',
        'window', 'x', 'y', 'straight', 'figured', 'outer face', 'perspective', 'similar', 'walls', 'ink',
    ];

    private Desk $desk;
    /** @var array<string, list<string>> ids by kind of row */
    private array $ids = [];
    /** @var array<string, list<string>> fields by kind of row */
    private array $fields = [];

    public function testNothingThatIsAskedMakesTheServerFail(): void
    {
        $count = false === getenv('PLINTH_FUZZ') ? 1500 : (int) getenv('PLINTH_FUZZ');
        $seed = false === getenv('PLINTH_SEED') ? 20_261_127 : (int) getenv('PLINTH_SEED');
        mt_srand($seed);
        $statuses = [];
        for ($i = 0; $i < $count; ++$i) {
            if (0 === $i % 500) {
                $this->furnish(); // removing hits home too: what was there is gone after a while
            }
            if (0 === $i % 50) {
                $this->learn();
            }
            [$method, $path, $body] = 0 === mt_rand(0, 3) ? $this->query() : $this->write();
            $json = null === $body ? null : str_replace(
                ['"1e400"', '"NaN"'],
                ['1e400', '-1e999'],
                json_encode($body, \JSON_THROW_ON_ERROR | \JSON_INVALID_UTF8_SUBSTITUTE),
            );
            [$status, $answer] = $this->desk->client->raw($method, $path, $json);
            $statuses[$status] = ($statuses[$status] ?? 0) + 1;
            self::assertTrue(
                $status >= 200 && $status < 500,
                "seed $seed, request $i: $method $path $json → $status ".json_encode($answer),
            );
            if ($status >= 400) {
                self::assertIsArray($answer['error'] ?? null, "$method $path $json");
                self::assertIsString($answer['error']['message']);
                self::assertNotSame('', $answer['error']['message']);
            }
        }
        self::assertGreaterThan($count / 50, $statuses[200] ?? 0, 'Some of it is sound: '.json_encode($statuses));
        if (false !== getenv('PLINTH_FUZZ')) {
            fwrite(\STDERR, "\n$count requests of seed $seed: ".json_encode($statuses)."\n");
        }
        // And it goes on as ever.
        $this->desk->state();
        $this->desk->drawing = null;
        $this->desk->change([$this->desk->chain([[0, 90_000], [4000, 90_000]])['operation']]);
    }

    private function furnish(): void
    {
        $shape = Desk::newId();
        $this->desk = new Desk(Client::ofStack()->signIn());
        $this->desk->bringIn(__DIR__.'/../../demo/sallow-fen-ground.jpg');
        $this->desk->imported();
        $this->desk->change($this->desk->knownLength([[500, 600], [2500, 600]], '13200'));
        $chain = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $this->desk->change([$chain['operation'], Desk::door($chain['walls'][0], 1000, 900)]);
        $side = Desk::newId();
        $boundary = Desk::newId();
        $this->desk->change([
            ['do' => 'add', 'type' => 'side', 'id' => $side, 'values' => ['name' => 'South']],
            [
                'do' => 'add',
                'type' => 'boundary',
                'id' => $boundary,
                'values' => ['storey' => $this->desk->storey, 'name' => 'Lot', 'x' => 0, 'y' => 0, 'up' => ''],
            ],
            [
                'do' => 'add',
                'type' => 'room',
                'id' => Desk::newId(),
                'values' => ['storey' => $this->desk->storey, 'name' => 'Hall', 'number' => '1', 'x' => 3000, 'y' => 2000],
            ],
            [
                'do' => 'add',
                'type' => 'note',
                'id' => Desk::newId(),
                'values' => ['storey' => $this->desk->storey, 'words' => 'assumed', 'x' => 1, 'y' => 1, 'assumption' => true],
            ],
            [
                'do' => 'add',
                'type' => 'drawnLine',
                'id' => $shape,
                'values' => ['storey' => $this->desk->storey, 'line' => '0 0 -20; 90 0; 90 90', 'closed' => true],
            ],
            [
                'do' => 'add',
                'type' => 'sweep',
                'id' => Desk::newId(),
                'values' => ['storey' => $this->desk->storey, 'name' => 'Cornice', 'profile' => $shape],
            ],
            [
                'do' => 'add',
                'type' => 'dimension',
                'id' => Desk::newId(),
                'values' => ['storey' => $this->desk->storey, 'x1' => 0, 'y1' => 0, 'x2' => 900, 'y2' => 0, 'off' => 300],
            ],
        ]);
    }

    /** Reads the project as it is: real ids and real fields make the requests that reach deepest. */
    private function learn(): void
    {
        $state = $this->desk->state();
        self::assertIsArray($state['rows']);
        $this->ids = [];
        foreach ($state['rows'] as $row) {
            self::assertIsArray($row);
            self::assertIsString($row['type']);
            self::assertIsString($row['id']);
            self::assertIsArray($row['values']);
            $this->ids[$row['type']][] = $row['id'];
            $this->fields[$row['type']] = array_map(strval(...), array_keys($row['values']));
        }
    }

    /** @return array{string, string, array<mixed>|null} */
    private function write(): array
    {
        $project = "/api/projects/{$this->desk->id}";
        switch (mt_rand(0, 11)) {
            case 0:
                return ['POST', $project.'/'.$this->one(['undo', 'redo']), ['id' => $this->some(), 'known' => $this->some()]];
            case 1:
                return ['PUT', $project.'/shares', ['email' => $this->some(), 'role' => $this->some()]];
            case 2:
                return 0 === mt_rand(0, 1)
                    ? [
                        'POST',
                        $project.'/drawings/'.$this->id('drawing').'/'.$this->one(['proposals/refuse', 'readings/refuse', 'facade/refuse']),
                        ['walls' => $this->some(), 'readings' => $this->some()],
                    ]
                    : [
                        'POST',
                        $project.'/jobs/'.$this->one([
                            'import-page', 'rectify-drawing', 'find-walls', 'find-openings', 'read-figures', 'find-skew', 'nothing',
                        ]).'/'.$this->id($this->one(['page', 'drawing'])).$this->one(['', '/stop']),
                        [],
                    ];
            case 3:
                return [
                    'POST',
                    $this->one([
                        '/api/rooms-table',
                        '/api/meter',
                        '/api/account/password',
                        '/api/projects',
                        $project.'/drop-in',
                        $project.'/pages/'.$this->id('page').'/match',
                    ]),
                    [
                        'text' => $this->some(),
                        'unit' => $this->some(),
                        'id' => $this->some(),
                        'name' => $this->some(),
                        'current' => $this->some(),
                        'new' => $this->some(),
                        'change' => $this->some(),
                        'pairs' => $this->some(),
                    ],
                ];
            default:
                $operations = [];
                for ($i = mt_rand(1, 3); $i > 0; --$i) {
                    $operations[] = $this->operation();
                }

                return [
                    'POST',
                    $project.'/'.(0 === mt_rand(0, 5) ? 'try' : 'changes'),
                    [
                        'base' => 0 === mt_rand(0, 20) ? $this->some() : $this->desk->revision,
                        'operations' => 0 === mt_rand(0, 40) ? $this->some() : $operations,
                    ] + (0 === mt_rand(0, 3) ? [] : ['id' => Desk::newId(), 'title' => 'Fuzz']),
                ];
        }
    }

    /** @return array<string, mixed> */
    private function operation(): array
    {
        $type = $this->one(array_keys(Registered::kinds()->classes));
        $do = $this->one([
            'add', 'set', 'set', 'set', 'remove', 'setMany', 'removeMany', 'move', 'trace', 'shift', 'figure', 'rework', 'lay',
            'settle', 'copy', 'arrange', 'toStorey', 'replace', 'goBack', 'fly',
        ]);
        $keys = [
            'trace' => [
                'storey', 'drawing', 'points', 'nodes', 'walls', 'closed', 'line', 'thickness', 'rises', 'joins', 'height',
                'enclosing', 'buildUp', 'evidence',
            ],
            'shift' => ['nodes', 'wall', 'left', 'length', 'holds', 'from', 'to', 'id', 'x', 'y'], 'figure' => [
                'a', 'b', 'aSide', 'bSide', 'opening', 'text', 'id', 'mm', 'decided', 'drawing', 'storey',
            ],
            'rework' => [
                'kind', 'wall', 'other', 'at', 'x', 'y', 'walls', 'node', 'storey', 'distance', 'id', 'ids',
            ], 'lay' => [
                'storey', 'drawing', 'walls', 'openings', 'columns',
            ], 'settle' => ['storey'], 'copy' => [
                'storey', 'things', 'alone', 'to', 'by',
            ], 'arrange' => [
                'things', 'by', 'turn', 'about', 'mirror', 'copies',
            ], 'toStorey' => ['from', 'things', 'storey'], 'replace' => ['page'], 'goBack' => ['drawing', 'revision'],
        ];
        $operation = ['do' => $do, 'type' => $type, 'id' => 'add' === $do ? Desk::newId() : $this->id($type)];
        if (isset($keys[$do])) {
            $operation = ['do' => $do, $do => $this->values($keys[$do])];
        } elseif (\in_array($do, ['setMany', 'removeMany', 'move'], true)) {
            $operation = ['do' => $do, 'type' => $type, 'ids' => [$this->id($type), $this->id($type)], 'by' => $this->some()];
        }
        if (\in_array($do, ['add', 'set', 'setMany'], true)) {
            $operation['values'] = $this->values($this->fields[$type] ?? ['name', 'x', 'y', 'storey'], 'set' === $do ? 0.3 : 0.9);
        }
        if (0 === mt_rand(0, 15)) {
            $operation[$this->one(array_keys($operation))] = $this->some();
        }

        return $operation;
    }

    /**
     * @param list<string> $keys
     *
     * @return array<string, mixed>
     */
    private function values(array $keys, float $part = 0.8): array
    {
        $values = [];
        foreach ($keys as $key) {
            if (mt_rand(0, 999) < 1000 * $part) {
                $values[$key] = match (true) {
                    0 === mt_rand(0, 3) => $this->some(),
                    isset($this->ids[$key]) => $this->id($key),
                    str_ends_with($key, 'Node') => $this->id('node'),
                    'things' === $key => [['type' => $type = $this->one(['drawnLine', 'dimension', 'outline']), 'id' => $this->id($type)]],
                    'points' === $key => [[mt_rand(-9000, 9000), mt_rand(-9000, 9000)], [mt_rand(-9000, 9000), mt_rand(-9000, 9000)]],
                    'nodes' === $key => [Desk::newId(), Desk::newId()],
                    'walls' === $key => [Desk::newId()],
                    \in_array(
                        $key,
                        ['name', 'text', 'number', 'kind', 'line', 'unit', 'standing', 'ends', 'along'],
                        true,
                    ) => $this->one(self::TEXTS),
                    default => 0 === mt_rand(0, 1) ? mt_rand(-5000, 9000) : $this->some(),
                };
            }
        }

        return $values;
    }

    /** @return array{string, string, null} */
    private function query(): array
    {
        $p = "/api/projects/{$this->desk->id}";
        $number = fn (): string => rawurlencode(
            $this->one([
                '0', '-1', '12.5', '1500', '1e7', '1e400', 'NaN', 'abc', '', '99999999999999999999', "\0", '0x10', '1e-320',
                '2147483648',
            ]),
        );
        $text = fn (): string => rawurlencode(
            $this->one([...self::TEXTS, '', "\0", "\xFF", str_repeat('9', 300), '-1', "8'-0\"+3", '9e99 km', '1/0', "1'\u{2032}"]),
        );
        $path = match (mt_rand(0, 11)) {
            0 => $this->one(['/api/length?text=', '/api/lengths?mayBeOne=yes&text=', '/api/bearing?text=']).$text().'&unit='.$text(),
            1 => '/api/spacings?text='.$text().'&unit='.$text().'&first='.$text(),
            2 => "$p/pages/{$this->id('page')}/found?x={$number()}&y={$number()}&reach={$number()}&mmPerPixel={$number()}&only=corners",
            3 => "$p/pages/{$this->id('page')}/ticks?ax={$number()}&ay={$number()}&bx={$number()}&by={$number()}",
            4 => "$p/drawings/{$this->id('drawing')}/gap?wall={$this->id('wall')}&x={$number()}&y={$number()}",
            5 => "$p/drawings/{$this->id('drawing')}/".$this->one([
                "probe?x={$number()}&y={$number()}",
                "risers?ax={$number()}&ay={$number()}&bx={$number()}&by={$number()}&width={$number()}",
            ]),
            6 => "$p/drawings/{$this->id('drawing')}/bearing?ax={$number()}&ay={$number()}&bx={$number()}&by={$number()}&up={$number()}",
            7 => "$p/drawings/{$this->id('drawing')}/".$this->one([
                'misfit?from='.$number().'&against='.$text(),
                'spread',
                'flatness',
                'fits',
                'rectified',
                'proposals',
                'readings',
            ]),
            8 => "$p/changes?since={$number()}",
            9 => "$p/storeys/{$this->id('storey')}/".$this->one(['plan.json', 'rooms-table', 'settled', 'sweeps', 'bodies']),
            10 => "$p/".$this->one([
                "outlines/{$this->id('outline')}",
                "drawn-lines/{$this->id('drawnLine')}",
                "boundaries/{$this->id('boundary')}",
                "boundaries/{$this->id('boundary')}/clearances",
                "sides/{$this->id('side')}/corners",
                "sides/{$this->id('side')}/view",
                "sides/{$this->id('side')}/view.dxf",
                "sides/{$this->id('side')}/openings",
                'history',
                'building.ifc',
                'building.dxf?layers='.rawurlencode($text()),
                'tables.zip',
                'archive.zip',
                'map-reference',
                'plan.geojson',
                'shares',
                'arrivals/'.Desk::newId(),
            ]),
            default => "$p/pages/{$this->id('page')}/".$this->one([
                'preview',
                'lines',
                '0123456789abcdef/tiles/'.mt_rand(0, 99).'/'.mt_rand(0, 9999).'/'.mt_rand(0, 9999),
            ]),
        };

        return ['GET', $path, null];
    }

    private function id(string $type): string
    {
        return 0 === mt_rand(0, 12) || [] === ($this->ids[$type] ?? []) ? Desk::newId() : $this->one($this->ids[$type]);
    }

    private function some(): mixed
    {
        return match (mt_rand(0, 5)) {
            0 => $this->one(self::TEXTS),
            1 => [] === $this->ids ? null : $this->id($this->one(array_keys($this->ids))),
            2 => [$this->one(self::HOSTILE), $this->one(self::HOSTILE)],
            default => $this->one(self::HOSTILE),
        };
    }

    /**
     * @template T
     *
     * @param array<T> $of
     *
     * @return T
     */
    private function one(array $of): mixed
    {
        return array_values($of)[mt_rand(0, \count($of) - 1)];
    }
}
