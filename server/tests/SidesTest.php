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
        self::assertContains('frame', $kinds);
        $storey = $this->desk->storey;
        $this->desk->change([['do' => 'set', 'type' => 'storey', 'id' => $storey, 'values' => ['height' => 3000]]]);
        [, $v] = $this->extent($this->view());
        self::assertEqualsWithDelta(3000.0, max([0.0, ...$v]), 0.02);
        $this->desk->change([['do' => 'set', 'type' => 'side', 'id' => $this->side, 'values' => ['cut' => true, 'fromY' => 2000, 'toY' => 2000]]]);
        self::assertCount(2, $this->view()->get('faces')->items(), 'The walls to the left and to the right.');
        [, $dxf] = $this->desk->client->send('GET', "/api/projects/{$this->desk->id}/sides/$this->side/view.dxf");
        self::assertStringContainsString('AC1015', json_encode($dxf, \JSON_THROW_ON_ERROR));
        $jogs = ['jogs' => '3000 2000; 3000 3900', 'toY' => 3900];
        $this->desk->change([['do' => 'set', 'type' => 'side', 'id' => $this->side, 'values' => $jogs]]);
        self::assertGreaterThan(2, \count($this->view()->get('faces')->items()), 'Behind the jog the north wall is cut along.');
        $error = $this->desk->refused(422, [['do' => 'set', 'type' => 'side', 'id' => $this->side, 'values' => ['jogs' => '3000 2500']]]);
        self::assertStringContainsString('Stretch', json_encode($error, \JSON_THROW_ON_ERROR));
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

    /** @param list<array{int, int}> $corners */
    private function outline(array $corners): void
    {
        $id = Desk::newId();
        $this->desk->change([
            ['do' => 'add', 'type' => 'outline', 'id' => $id, 'values' => ['side' => $this->side, 'storey' => null, 'kind' => 'face', 'name' => 'Face']],
            ...array_map(static fn (array $p, int $i): array => ['do' => 'add', 'type' => 'outlineCorner', 'id' => Desk::newId(), 'values' => [
                'outline' => $id, 'order' => $i, 'x' => $p[0], 'y' => $p[1],
            ]], $corners, array_keys($corners)),
        ]);
    }

    private function view(): JsonValue
    {
        return JsonValue::of($this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/sides/$this->side/view"));
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
