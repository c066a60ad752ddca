<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;

/** A side shows what stands, follows every change, and says how openings that were traced there lie against the plan's. */
final class SidesTest extends TestCase
{
    private Desk $desk;
    private string $side;
    /** @var list<string> */
    private array $walls;

    /** 6 × 4 m over the outer faces of walls of 200, with a door and a window in the south one. */
    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
        $corners = [[100, 100], [5900, 100], [5900, 3900], [100, 3900]];
        $chain = $this->desk->chain($corners, true);
        $this->walls = $chain['walls'];
        $opening = fn (string $kind, int $offset, int $width, int $sill, int $height): array => [
            'do' => 'add', 'type' => 'opening', 'id' => Desk::newId(), 'values' => [
                'wall' => $this->walls[0], 'kind' => $kind, 'offset' => $offset, 'width' => $width, 'sill' => $sill, 'height' => $height,
                'hand' => 'left', 'swing' => 'left', 'leaf' => 'single', 'number' => strtoupper($kind[0]).'01',
            ],
        ];
        $this->side = Desk::newId();
        $this->desk->change([$chain['operation'], $opening('door', 900, 1000, 0, 2100), $opening('window', 3400, 1200, 900, 1200), ['do' => 'add', 'type' => 'side', 'id' => $this->side, 'values' => [
            'name' => 'South', 'fromX' => 0, 'fromY' => 0, 'toX' => 6000, 'toY' => 0,
        ]]]);
    }

    public function testASideFollowsWhatStandsAndASectionCutsIt(): void
    {
        [$u, $v] = $this->extent($this->view());
        self::assertEqualsWithDelta([0.0, 6000.0, 0.0, 2700.0], [min([0.0, ...$u]), max([0.0, ...$u]), min([0.0, ...$v]), max([0.0, ...$v])], 0.02);
        self::assertSame([], $this->view()->get('faces')->items());
        $kinds = array_map(static fn (JsonValue $l): string => $l->get('kind')->text(), $this->view()->get('lines')->items());
        self::assertContains('leaf', $kinds);
        $roles = array_map(
            static fn (JsonValue $l): string => $l->get('role')->text(),
            $this->view(hidden: true)->get('lines')->items(),
        );
        self::assertContains('hidden', $roles, 'The walls behind, where they are wanted.');
        self::assertContains('frame', $kinds);
        $storey = $this->desk->storey;
        $this->desk->change([['do' => 'set', 'type' => 'storey', 'id' => $storey, 'values' => ['height' => 3000]]]);
        [, $v] = $this->extent($this->view());
        self::assertEqualsWithDelta(3000.0, max([0.0, ...$v]), 0.02);
        $this->desk->change([['do' => 'set', 'type' => 'side', 'id' => $this->side, 'values' => ['cut' => true, 'fromY' => 2000, 'toY' => 2000]]]);
        self::assertCount(2, $this->view()->get('faces')->items(), 'The walls to the left and to the right.');
        [, $dxf] = $this->desk->client->send('GET', "/api/projects/{$this->desk->id}/sides/$this->side/view.dxf");
        self::assertStringContainsString('AC1015', json_encode($dxf, \JSON_THROW_ON_ERROR));
        self::assertStringNotContainsString('new render', json_encode($dxf, \JSON_THROW_ON_ERROR));
        $this->desk->change([['do' => 'add', 'type' => 'note', 'id' => Desk::newId(), 'values' => [
            'storey' => null, 'side' => $this->side, 'x' => 3000, 'y' => 2000, 'words' => 'new render', 'toX' => null, 'toY' => null, 'assumption' => false,
        ]]]);
        [, $dxf] = $this->desk->client->send('GET', "/api/projects/{$this->desk->id}/sides/$this->side/view.dxf?layers=iso13567");
        self::assertStringContainsString('new render', json_encode($dxf, \JSON_THROW_ON_ERROR), 'What is drawn on it goes along.');
        $jogs = ['jogs' => '3000 2000; 3000 3900', 'toY' => 3900];
        $this->desk->change([['do' => 'set', 'type' => 'side', 'id' => $this->side, 'values' => $jogs]]);
        self::assertGreaterThan(2, \count($this->view()->get('faces')->items()), 'Behind the jog the north wall is cut along.');
        $error = $this->desk->refused(422, [['do' => 'set', 'type' => 'side', 'id' => $this->side, 'values' => ['jogs' => '3000 2500']]]);
        self::assertStringContainsString('Stretch', json_encode($error, \JSON_THROW_ON_ERROR));
    }

    public function testSidesStandInARowJoinedAtTheirCorners(): void
    {
        [$street, $west, $bare] = [Desk::newId(), Desk::newId(), Desk::newId()];
        $part = static fn (string $side, int $order, int $from, int $to, int $rise = 0): array => [
            'do' => 'add', 'type' => 'streetPart', 'id' => Desk::newId(),
            'values' => ['street' => $street, 'side' => $side, 'order' => $order, 'fromX' => $from, 'toX' => $to, 'rise' => $rise],
        ];
        $this->desk->change([
            ['do' => 'add', 'type' => 'side', 'id' => $street, 'values' => ['name' => 'Along the lane']],
            ['do' => 'add', 'type' => 'side', 'id' => $bare, 'values' => ['name' => 'Neighbour']],
            ['do' => 'add', 'type' => 'side', 'id' => $west, 'values' => ['name' => 'West', 'fromX' => 0, 'fromY' => 4000, 'toX' => 0, 'toY' => 0]],
            $part($west, 0, 0, 4000), $part($this->side, 1, 0, 6000, 300), $part($bare, 2, -500, 2500),
        ]);
        [$u, $v] = $this->extent($this->view($street));
        self::assertEqualsWithDelta([0.0, 10_000.0, 0.0, 3000.0], [min([1e9, ...$u]), max([0.0, ...$u]), min([1e9, ...$v]), max([0.0, ...$v])], 0.02);
        $doors = array_filter(
            $this->view($street)->get('lines')->items(),
            static fn (JsonValue $l): bool => 'leaf' === $l->get('kind')->text(),
        );
        self::assertNotSame([], $doors);
        foreach ($doors as $line) {
            self::assertGreaterThan(4000.0, $line->get('from')->pair()[0], 'The door is in the second part.');
            self::assertGreaterThan(299.0, $line->get('from')->pair()[1], 'It is lifted with it.');
        }
        [, $dxf] = $this->desk->client->send('GET', "/api/projects/{$this->desk->id}/sides/$street/view.dxf");
        self::assertStringContainsString('AC1015', json_encode($dxf, \JSON_THROW_ON_ERROR));
        $error = $this->desk->refused(422, [$part($street, 3, 0, 900)]);
        self::assertStringContainsString('itself', json_encode($error, \JSON_THROW_ON_ERROR));
        $error = $this->desk->refused(422, [$part($west, 3, 900, 905)]);
        self::assertStringContainsString('10 mm', json_encode($error, \JSON_THROW_ON_ERROR));
        $this->desk->change([['do' => 'remove', 'type' => 'side', 'id' => $west]]);
        [$u] = $this->extent($this->view($street));
        self::assertEqualsWithDelta(6000.0, max([0.0, ...$u]), 0.02, 'What is gone stands in no row.');
    }

    public function testOpeningsAreHeldAgainstWhatWasTracedAndWhatThePlanLacksHasItsWall(): void
    {
        [$door, $window] = $this->held();
        self::assertEqualsWithDelta([1000.0, 2000.0], [$door->get('opening')->get('leftMm')->number(), $door->get('opening')->get('rightMm')->number()], 0.01);
        self::assertNull($door->optional('outline'));
        // Traced: the door 30 to the left, the window as it is but 50 higher, one more, and all of the face.
        foreach ([[970, 0, 1970, 2050], [3500, 950, 4700, 2150], [5000, 900, 5600, 1500], [0, 0, 6000, 2700]] as [$left, $sill, $right, $head]) {
            $this->outline([[$left, $sill], [$right, $sill], [$right, $head], [$left, $head]]);
        }
        $matches = $this->held();
        self::assertCount(3, $matches, 'The face is no opening.');
        self::assertEqualsWithDelta(970.0, $matches[0]->get('outline')->get('leftMm')->number(), 0.01);
        self::assertEqualsWithDelta(950.0, $matches[1]->get('outline')->get('sillMm')->number(), 0.01);
        self::assertNull($matches[2]->optional('opening'));
        $wall = $matches[2]->get('wall');
        self::assertSame($this->walls[0], $wall->get('id')->text());
        self::assertEqualsWithDelta([4900.0, 600.0], [$wall->get('offsetMm')->number(), $wall->get('widthMm')->number()], 0.01);
        self::assertSame($window->get('opening')->get('id')->text(), $matches[1]->get('opening')->get('id')->text());
        // From the north none of them is seen.
        $this->desk->change([['do' => 'set', 'type' => 'side', 'id' => $this->side, 'values' => ['fromX' => 6000, 'fromY' => 4000, 'toX' => 0, 'toY' => 4000]]]);
        foreach ($this->held() as $match) {
            self::assertNull($match->optional('opening'));
        }
    }

    public function testOpeningsThatItsPictureShowsAreFoundTracedAndHeldAgainstThePlan(): void
    {
        // The door as it is, the window 40 to the right and 50 higher, and one that the plan lacks.
        $this->drawn([[1000, 0, 2000, 2100], [3540, 950, 4740, 2150], [5000, 900, 5600, 1500]]);
        $path = "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/facade";
        $facade = fn (): JsonValue => JsonValue::of($this->desk->client->ok('GET', $path));
        self::assertFalse($facade()->get('found')->boolean());
        $this->desk->ask('find-openings', $this->desk->drawing);
        self::assertSame('done', $this->desk->ended('find-openings', $this->desk->drawing)->get('state')->text());
        $found = array_values(array_filter($facade()->get('openings')->items(), static fn (JsonValue $o): bool => $o->get('sure')->boolean()));
        self::assertCount(3, $found);
        usort($found, static fn (JsonValue $a, JsonValue $b): int => $a->get('leftMm')->number() <=> $b->get('leftMm')->number());
        $edges = static fn (JsonValue $o): array => array_map(static fn (string $e): float => $o->get($e)->number(), ['leftMm', 'sillMm', 'rightMm', 'headMm']);
        self::assertEqualsWithDelta([3540, 950, 4740, 2150], $edges($found[1]), 8.0);

        // What is refused stays so until it is taken back.
        $id = $found[2]->get('id')->text();
        self::assertSame(1.0, JsonValue::of($this->desk->client->ok('POST', "$path/refuse", ['openings' => [$id]]))->get('refused')->number());
        self::assertNotContains($id, array_map(static fn (JsonValue $o): string => $o->get('id')->text(), $facade()->get('openings')->items()));
        $this->desk->client->ok('POST', "$path/refuse", ['openings' => []]);

        // What is traced is told no more, and is held against the plan with its own ±.
        $plusMinus = $found[1]->get('plusMinusMm')->number();
        [$l, $b, $r, $t] = $edges($found[1]);
        $this->outline([[$l, $b], [$r, $b], [$r, $t], [$l, $t]], $plusMinus);
        self::assertNotContains($found[1]->get('id')->text(), array_map(static fn (JsonValue $o): string => $o->get('id')->text(), $facade()->get('openings')->items()));
        $window = $this->held()[1];
        self::assertGreaterThan($plusMinus, $window->get('plusMinusMm')->number(), 'Two edges, and the drawing’s size.');
        self::assertLessThan(80.0, $window->get('plusMinusMm')->number());
        self::assertSame($this->walls[0], $window->get('wall')->get('id')->text());
        self::assertEqualsWithDelta([3440.0, 1200.0], [$window->get('wall')->get('offsetMm')->number(), $window->get('wall')->get('widthMm')->number()], 8.0);

        // On a storey no drawing shows a facade.
        $place = ['side' => null, 'storey' => $this->desk->storey];
        $this->desk->change([['do' => 'set', 'type' => 'drawing', 'id' => $this->desk->drawing, 'values' => $place]]);
        $this->desk->client->refused(409, 'GET', $path);
        $this->desk->client->refused(409, 'POST', "/api/projects/{$this->desk->id}/jobs/find-openings/{$this->desk->drawing}");
    }

    /**
     * A drawn elevation at 5 mm a pixel, sized by its width and placed by its lower left corner.
     *
     * @param list<array{int, int, int, int}> $openings left, sill, right and head, mm
     */
    private function drawn(array $openings): void
    {
        $image = imagecreatetruecolor(1500, 900);
        self::assertInstanceOf(\GdImage::class, $image);
        imagefill($image, 0, 0, 0xF8F8F8);
        imagesetthickness($image, 3);
        $rectangle = static fn (float $l, float $b, float $r, float $t, int $colour) => imagerectangle($image, (int) (150 + $l / 5), (int) (750 - $t / 5), (int) (150 + $r / 5), (int) (750 - $b / 5), $colour);
        $rectangle(0, 0, 6000, 2700, 0x303030);
        foreach ($openings as [$l, $b, $r, $t]) {
            $rectangle($l, $b, $r, $t, 0x303030);
            imagesetthickness($image, 1);
            $rectangle($l + 60, $b + 60, $r - 60, $t - 60, 0x808080);
            imagesetthickness($image, 3);
        }
        $file = tempnam(sys_get_temp_dir(), 'side').'.png';
        imagepng($image, $file);
        $this->desk->bringIn($file, 'south.png');
        unlink($file);
        $this->desk->imported();
        $corner = Desk::newId();
        $values = ['drawing' => $this->desk->drawing, 'x' => 150.5, 'y' => 750.5, 'sigmaPx' => 0.3];
        $this->desk->change([
            ['do' => 'set', 'type' => 'drawing', 'id' => $this->desk->drawing, 'values' => ['side' => $this->side, 'storey' => null, 'kind' => 'elevation']],
            ...$this->desk->knownLength([[150.5, 700.0], [1350.5, 700.0]], '6000'),
            ['do' => 'add', 'type' => 'pick', 'id' => $corner, 'values' => $values],
            ['do' => 'add', 'type' => 'controlPoint', 'id' => Desk::newId(), 'values' => ['drawing' => $this->desk->drawing, 'pick' => $corner, 'x' => 0, 'y' => 0]],
        ]);
    }

    /** @param list<array{float|int, float|int}> $corners */
    private function outline(array $corners, ?float $plusMinus = null): void
    {
        $id = Desk::newId();
        $this->desk->change([
            ['do' => 'add', 'type' => 'outline', 'id' => $id, 'values' => ['side' => $this->side, 'storey' => null, 'kind' => 'face', 'name' => 'Face', 'plusMinusMm' => $plusMinus]],
            ...array_map(fn (array $p, int $i): array => ['do' => 'add', 'type' => 'outlineCorner', 'id' => Desk::newId(), 'values' => [
                'outline' => $id, 'drawing' => null === $plusMinus ? null : $this->desk->drawing, 'order' => $i, 'x' => $p[0], 'y' => $p[1],
            ]], $corners, array_keys($corners)),
        ]);
    }

    private function view(?string $side = null, bool $hidden = false): JsonValue
    {
        $side ??= $this->side;
        $also = $hidden ? '?hidden=1' : '';

        return JsonValue::of($this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/sides/$side/view$also"));
    }

    /** @return list<JsonValue> */
    private function held(): array
    {
        return JsonValue::of($this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/sides/$this->side/openings"))->get('matches')->items();
    }

    /** @return array{list<float>, list<float>} */
    private function extent(JsonValue $view): array
    {
        [$u, $v] = [[], []];
        foreach ($view->get('lines')->items() as $line) {
            foreach (['from', 'to'] as $end) {
                $at = $line->get($end)->point();
                [$u[], $v[]] = [$at->x, $at->y];
            }
        }

        return [$u, $v];
    }
}
