<?php

declare(strict_types=1);

// The whole way as it is met: each drawing goes from its bare file through the running server to named rooms, as its own proposals have it
// and with nothing put right by hand; then it is held against its truth, worst first. Beside it stand OpenCV's line segments, paired into
// walls, and the recogniser's reading of the whole page. Usage: flow.php FOLDER SCORE.PY [PART OF]

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Server\Tests\Client;
use Plinth\Server\Tests\Desk;

require __DIR__.'/../vendor/autoload.php';
require __DIR__.'/drawings.php';

ini_set('memory_limit', '2G');
[$folder, $score] = [$argv[1] ?? exit("Usage: flow.php FOLDER SCORE.PY [PART OF]\n"), $argv[2] ?? exit("Usage: flow.php FOLDER SCORE.PY [PART OF]\n")];
[$part, $of] = [(int) ($argv[3] ?? 0), (int) ($argv[4] ?? 1)];
$work = sys_get_temp_dir().'/flow-bench-'.getmypid();

/** A drawing on the desk, from its file to what the tool makes of it by itself. */
final class Taken
{
    public readonly Desk $desk;
    public int $clicks = 1; // its file
    public ?int $turns = null;
    public int $figures = 0;
    public array $says = [];
    /** @var array<mixed> the project as it was left */
    public array $state;

    public function __construct(string $file)
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
        $this->desk->bringIn($file, basename($file));
        $this->desk->imported();
        $this->desk->skew();
        $this->wayUp();
        if ($this->size()) {
            $this->walls();
            $this->names();
        }
        $this->state = $this->desk->state();
    }

    /** @return list<array<string, mixed>> */
    private function asked(string $job, string $answer, string $key): array
    {
        $this->desk->ask($job, $this->desk->drawing);
        $ended = $this->desk->ended($job, $this->desk->drawing);
        if ('done' !== $ended->get('state')->text()) {
            $this->says[] = $job.': '.$ended->get('words')->text();
        }

        return $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/$answer")[$key];
    }

    private function wayUp(): void
    {
        $this->desk->ask('find-way-up', $this->desk->page);
        $this->desk->ended('find-way-up', $this->desk->page);
        $this->clicks += 1;
        $way = $this->desk->imported()['made']['wayUp'] ?? null;
        $this->turns = true === ($way['sure'] ?? false) ? $way['turns'] : null;
        if (0 !== ($this->turns ?? 0)) {
            $this->desk->change([['do' => 'set', 'type' => 'drawing', 'id' => $this->desk->drawing, 'values' => ['turns' => $this->turns]]]);
            $this->clicks += 1;
        }
    }

    private function size(): bool
    {
        $this->figures = count($this->asked('read-figures', 'readings', 'figures'));
        $this->clicks += 2;
        if ($this->figures < 2) {
            $this->says[] = 'no size';

            return false;
        }
        $this->desk->change([['do' => 'size', 'size' => ['drawing' => $this->desk->drawing]]]);

        return true;
    }

    private function walls(): void
    {
        $found = ['walls' => $this->asked('find-walls', 'proposals', 'walls')]
            + $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/proposals");
        $walls = array_values(array_filter($found['walls'], static fn (array $w): bool => $w['sure']));
        $this->clicks += 2;
        if ([] === $walls) {
            $this->says[] = 'no wall';

            return;
        }
        $index = array_flip(array_column($walls, 'id'));
        $openings = array_filter($found['openings'], static fn (array $o): bool => $o['sure'] && isset($index[$o['wall']]));
        $only = static fn (array $from, string ...$keys): array => array_intersect_key($from, array_flip($keys));
        $this->desk->change([['do' => 'lay', 'lay' => [
            'storey' => $this->desk->storey, 'drawing' => $this->desk->drawing,
            'walls' => array_map(static fn (array $w): array => $only($w, 'from', 'to', 'thickness') + ['buildUp' => $w['buildUp']['id'] ?? null], $walls),
            'openings' => array_map(static fn (array $o): array => ['wall' => $index[$o['wall']]] + $only($o, 'kind', 'offset', 'width', 'leafAt', 'leafSide'), array_values($openings)),
            'columns' => array_map(static fn (array $c): array => $only($c, 'x', 'y', 'width', 'depth'), $found['columns']),
        ]]]);
    }

    private function names(): void
    {
        $names = $this->asked('read-figures', 'readings', 'rooms');
        $this->clicks += 1;
        $state = $this->desk->state();
        $map = $this->map($state);
        $surest = [];
        foreach ($names as $name) {
            $at = $map->toMm(new PixelPoint(...$name['at']));
            foreach (self::regions($state) as $region) {
                if (Polygon::contains($region['polygon'], $at->x, $at->y)) {
                    $before = $surest[$region['key']] ?? null;
                    $surest[$region['key']] = null === $before || $name['confidence'] > $before[0]['confidence'] ? [$name, $at] : $before;
                    break;
                }
            }
        }
        $open = array_map(fn (array $n, int $i): array => ['do' => 'add', 'type' => 'room', 'id' => Desk::newId(), 'values' => [
            'storey' => $this->desk->storey, 'drawing' => $this->desk->drawing, 'name' => $n[0]['name'], 'number' => (string) ($i + 1),
            'x' => $n[1]->x, 'y' => $n[1]->y, 'height' => null,
        ]], array_values($surest), array_keys(array_values($surest)));
        if ([] !== $open) {
            $this->desk->change($open);
        }
    }

    /** @param array<mixed> $state */
    public function map(array $state): PixelToMm
    {
        $m = array_values(array_filter(Desk::rows($state, 'fit'), fn (array $f): bool => $f['id'] === $this->desk->drawing))[0]['values'];

        return PixelToMm::ofMatrix([$m['m00'], $m['m01'], $m['m02'], $m['m10'], $m['m11'], $m['m12'], $m['m20'], $m['m21'], $m['m22']]);
    }

    /**
     * @param array<mixed> $state
     *
     * @return list<array<string, mixed>>
     */
    public static function regions(array $state): array
    {
        return array_merge(...array_column($state['derived'], 'regions'), ...[[]]);
    }
}

/** What of the truth's openings is there, and how many more are: jambs within 150 mm, in the truth's millimetres. */
function openings(array $ours, array $truth): array
{
    $byId = array_column($truth['walls'], null, 'id');
    [$hit, $used] = [0, []];
    foreach ($truth['openings'] ?? [] as $o) {
        $w = $byId[$o['wall']];
        $l = hypot($w['to'][0] - $w['from'][0], $w['to'][1] - $w['from'][1]);
        $place = static fn (float $t): Point => new Point($w['from'][0] + $t * ($w['to'][0] - $w['from'][0]) / $l, $w['from'][1] + $t * ($w['to'][1] - $w['from'][1]) / $l);
        [$a, $b] = [$place($o['offset']), $place($o['offset'] + $o['width'])];
        foreach ($ours as $k => [$c, $d, $kind]) {
            if (!isset($used[$k]) && $kind === $o['kind'] && min(max($a->distanceTo($c), $b->distanceTo($d)), max($a->distanceTo($d), $b->distanceTo($c))) < 150.0) {
                $used[$k] = true;
                ++$hit;
                break;
            }
        }
    }

    return [$hit, count($ours) - $hit];
}

/** Words of the figures and names of the truth that the recogniser reads off the whole page, the right way up. */
function recognised(string $file, int $quarters, array $truth): array
{
    $turned = sys_get_temp_dir().'/flow-'.getmypid().'.png';
    shell_exec(sprintf('vips rot %s %s d%d', escapeshellarg($file), escapeshellarg($turned), 90 * ((4 - $quarters) % 4)));
    $text = (string) shell_exec('OMP_THREAD_LIMIT=1 tesseract '.escapeshellarg($turned).' stdout --psm 11 -l eng 2>/dev/null');
    @unlink($turned);
    $has = static fn (string $wanted): bool => 1 === preg_match('/(^|\n)'.preg_quote($wanted, '/').'\s*(\n|$)/i', $text);

    return [
        count(array_filter($truth['dimensions'] ?? [], static fn (array $d): bool => $has($d['text']))),
        count(array_filter($truth['rooms'], static fn (array $r): bool => $has($r['name']))),
    ];
}

$rows = [];
$sum = ['drawings' => 0, 'sized' => 0, 'rooms' => 0, 'right' => 0, 'named' => 0, 'openings' => 0, 'found' => 0, 'false' => 0, 'turns' => 0, 'two' => 0];
$lists = ['precision' => [], 'recall' => [], 'seconds' => [], 'left' => [], 'rms' => [], 'theirs' => []];
$k = -1;
foreach (glob($folder.'/*.truth.json') ?: [] as $truthFile) {
    $truth = json_decode((string) file_get_contents($truthFile), true);
    if (!isset($truth['rooms'], $truth['walls']) || ++$k % $of !== $part) {
        continue;
    }
    $name = basename($truthFile, '.truth.json');
    $file = $folder.'/'.$truth['image'];
    $start = hrtime(true);
    try {
        $taken = new Taken($file);
    } catch (Throwable $e) {
        $rows[] = [-1.0, sprintf('  %-32s FAILED: %s', $name, $e->getMessage())];
        continue;
    }
    $seconds = (hrtime(true) - $start) / 1e9;
    [$state, $true] = [$taken->state, PixelToMm::ofMatrix(array_merge(...$truth['pixelToMm']))];
    $map = $taken->map($state);
    $isSized = $taken->figures >= 2;
    $rms = $isSized ? rmsPx($map, $true, $truth) : INF;
    $fit = $isSized ? scored($score, $work, 'fit', ['pixelToMm' => $map->rows()], $truth, 'own') : [];
    $nodes = array_column(Desk::rows($state, 'node'), 'values', 'id');
    $place = static fn (string $id): array => [$nodes[$id]['x'], $nodes[$id]['y']];
    $walls = $byWall = [];
    foreach (Desk::rows($state, 'wall') as $w) {
        $walls[] = $byWall[$w['id']] = ['from' => $place($w['values']['fromNode']), 'to' => $place($w['values']['toNode']), 'thickness' => $w['values']['thickness']];
    }
    $result = ['pixelToMm' => $map->rows(), 'walls' => $walls];
    $ours = [] === $walls ? [] : scored($score, $work, 'walls', $result, $truth, 'rigid');
    [$precision, $recall] = [$ours['precision'] ?? 0.0, $ours['recall'] ?? 0.0];
    $inTruth = static fn (array $w, float $t): Point => $true->toMm($map->toPixel(new Point(
        $w['from'][0] + $t * ($w['to'][0] - $w['from'][0]) / max(1e-9, hypot($w['to'][0] - $w['from'][0], $w['to'][1] - $w['from'][1])),
        $w['from'][1] + $t * ($w['to'][1] - $w['from'][1]) / max(1e-9, hypot($w['to'][0] - $w['from'][0], $w['to'][1] - $w['from'][1])),
    )));
    [$hit, $false] = openings(array_map(static fn (array $o): array => [
        $inTruth($byWall[$o['values']['wall']], $o['values']['offset']), $inTruth($byWall[$o['values']['wall']], $o['values']['offset'] + $o['values']['width']), $o['values']['kind'],
    ], Desk::rows($state, 'opening')), $truth);
    // A room is right where its middle lies in a region of its area within 1 %.
    [$right, $named] = [0, 0];
    $roomNames = [];
    foreach (Desk::rows($state, 'room') as $room) {
        $roomNames[$room['id']] = $room['values']['name'];
    }
    foreach ($truth['rooms'] as $room) {
        $at = $map->toMm($true->toPixel(new Point(...Polygon::labelPoint($room['polygon']))));
        foreach (Taken::regions($state) as $region) {
            if (Polygon::contains($region['polygon'], $at->x, $at->y)) {
                $isRight = abs($region['netAreaM2'] / $room['netArea'] - 1.0) < 0.01;
                $right += $isRight ? 1 : 0;
                $named += $isRight && strcasecmp($roomNames[$region['id']] ?? '', $room['name']) === 0 ? 1 : 0;
                break;
            }
        }
    }
    // What is left for the hand: two clicks for a wall or a room's size, one for whatever is taken, removed or named.
    $lost = max(0, ($ours['wallsTruth'] ?? count($truth['walls'])) - ($ours['wallsFound80'] ?? 0));
    $wrong = (int) round((1.0 - $precision) * count($walls));
    $left = ($isSized ? 0 : 4) + 2 * $lost + $wrong + (count($truth['openings'] ?? []) - $hit) + $false + (count($truth['rooms']) - $named);
    $grey = $work.'.pgm';
    shell_exec(sprintf('vips colourspace %s %s b-w', escapeshellarg($file), escapeshellarg($grey)));
    $theirs = scored($score, $work, 'walls', json_decode((string) shell_exec('/usr/bin/python3 '.escapeshellarg(__DIR__.'/outside/segments.py').' '.escapeshellarg($grey).' '.$truth['mmPerPixel']), true) ?? [], $truth, 'auto');
    [$figuresAlone, $namesAlone] = recognised($file, $truth['quarterTurns'] ?? 0, $truth);
    $turnsRight = $taken->turns === (4 - ($truth['quarterTurns'] ?? 0)) % 4;
    $rooms = count($truth['rooms']);
    $rows[] = [$right / $rooms, sprintf(
        "  %-32s rooms %d of %d right, %d named; walls %.2f, %.2f; openings %d of %d, %d false; scale off %s %%, RMS %.2f px; %s; %d figures; %.0f s; %d clicks, %d left%s\n      alone: OpenCV's walls %.2f, %.2f; the recogniser's %d of %d figures without their ends, %d of %d names",
        $name, $right, $rooms, $named, $precision, $recall, $hit, count($truth['openings'] ?? []), $false, isset($fit['scaleErrorPercent']) ? sprintf('%+.3f', $fit['scaleErrorPercent']) : '–', $rms, null === $taken->turns ? 'way up not sure' : ($turnsRight ? 'way up right' : 'WAY UP WRONG'),
        $taken->figures, $seconds, $taken->clicks, $left, [] === $taken->says ? '' : '; '.implode('; ', $taken->says), $theirs['precision'] ?? 0, $theirs['recall'] ?? 0, $figuresAlone, count($truth['dimensions'] ?? []), $namesAlone, $rooms,
    )];
    foreach (['drawings' => 1, 'sized' => $isSized ? 1 : 0, 'rooms' => $rooms, 'right' => $right, 'named' => $named, 'openings' => count($truth['openings'] ?? []), 'found' => $hit, 'false' => $false, 'turns' => $turnsRight ? 1 : 0, 'two' => $rms <= 2.0 ? 1 : 0] as $key => $n) {
        $sum[$key] += $n;
    }
    foreach (['precision' => $precision, 'recall' => $recall, 'seconds' => $seconds, 'left' => $left, 'rms' => min(1e6, $rms), 'theirs' => $theirs['recall'] ?? 0] as $key => $v) {
        $lists[$key][] = $v;
    }
    fwrite(\STDERR, end($rows)[1]."\n");
}
array_map(unlink(...), glob($work.'*') ?: []);
usort($rows, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
echo "The whole way, rooms right within 1 % of their area\n", implode("\n", array_column($rows, 1)), "\n";
printf(
    "  all %d: rooms %d of %d right, %d named; sized %d, RMS within 2 px %d, median %.2f; way up right %d; walls precision %.3f, recall %.3f in the median; openings %d of %d, %.2f false a drawing; %.0f s, %d left to do by hand in the median\n",
    $sum['drawings'], $sum['right'], $sum['rooms'], $sum['named'], $sum['sized'], $sum['two'], quantile($lists['rms'], 0.5), $sum['turns'], quantile($lists['precision'], 0.5), quantile($lists['recall'], 0.5),
    $sum['found'], $sum['openings'], $sum['false'] / max(1, $sum['drawings']), quantile($lists['seconds'], 0.5), quantile($lists['left'], 0.5),
);
