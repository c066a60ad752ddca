<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;

/** What is drawn freely is moved, mirrored and repeated wherever it lies, and a shape becomes a body along a path. */
final class DraftingTest extends TestCase
{
    private Desk $desk;

    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
    }

    /** @return array<string, mixed> */
    private function line(string $id, string $line, bool $closed = false, ?string $side = null): array
    {
        return ['do' => 'add', 'type' => 'drawnLine', 'id' => $id, 'values' => [
            'storey' => null === $side ? $this->desk->storey : null, 'side' => $side, 'name' => '', 'line' => $line, 'closed' => $closed,
            'kind' => 'dashed', 'fill' => $closed ? 'hatched' : 'none',
        ]];
    }

    /** @return list<JsonValue> */
    private function rows(string $type): array
    {
        return array_map(static fn (array $row): JsonValue => JsonValue::of($row), Desk::rows($this->desk->state(), $type));
    }

    /** @return array<string, string> what each line of the project goes through, by id */
    private function lines(): array
    {
        $lines = [];
        foreach ($this->rows('drawnLine') as $row) {
            $lines[$row->get('id')->text()] = $row->get('values')->get('line')->text(60_000);
        }

        return $lines;
    }

    /** @param array<string, mixed> $how */
    private function arrange(string $type, string $id, array $how): void
    {
        $this->desk->change([['do' => 'arrange', 'arrange' => ['things' => [['type' => $type, 'id' => $id]]] + $how]]);
    }

    public function testALineTellsWhatItMeasuresAndIsMovedTurnedMirroredAndRepeated(): void
    {
        $id = Desk::newId();
        $this->desk->change([$this->line($id, '0 0 -500; 1000 0; 1000 800', true)]);
        $told = JsonValue::of($this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/drawn-lines/$id"));
        // Half a circle below a level edge, and the two other sides.
        self::assertEqualsWithDelta(\M_PI * 500 + 800 + hypot(1000.0, 800.0), $told->get('lengthMm')->number(), 1e-6);
        $this->arrange('drawnLine', $id, ['by' => [100, -50]]);
        self::assertSame('100 -50 -500; 1100 -50; 1100 750', $this->lines()[$id]);
        $this->arrange('drawnLine', $id, ['mirror' => [[0, 0], [0, 100]]]);
        self::assertSame('-100 -50 500; -1100 -50; -1100 750', $this->lines()[$id]);
        $this->arrange('drawnLine', $id, ['turn' => 90, 'about' => [0, 0]]);
        self::assertSame('50 -100 500; 50 -1100; -750 -1100', $this->lines()[$id]);
        $this->arrange('drawnLine', $id, ['by' => [0, 2000], 'copies' => 3]);
        $lines = $this->lines();
        self::assertCount(4, $lines);
        self::assertSame('50 -100 500; 50 -1100; -750 -1100', $lines[$id], 'What is repeated stays.');
        self::assertContains('50 5900 500; 50 4900; -750 4900', $lines);
    }

    public function testNotesDimensionsAndOutlinesOfASideAreArrangedByTheSameOperation(): void
    {
        [$side, $face, $note, $dimension] = [Desk::newId(), Desk::newId(), Desk::newId(), Desk::newId()];
        $corner = static fn (int $order, int $x, int $y, int $rise = 0): array => [
            'do' => 'add', 'type' => 'outlineCorner', 'id' => Desk::newId(),
            'values' => ['outline' => $face, 'order' => $order, 'x' => $x, 'y' => $y, 'rise' => $rise],
        ];
        $here = ['storey' => null, 'side' => $side];
        $this->desk->change([
            ['do' => 'add', 'type' => 'side', 'id' => $side, 'values' => ['name' => 'South']],
            ['do' => 'add', 'type' => 'outline', 'id' => $face, 'values' => $here + ['name' => 'Window', 'kind' => 'face']],
            $corner(0, 1000, 900), $corner(1, 2000, 900), $corner(2, 2000, 2100, 300), $corner(3, 1000, 2100),
            ['do' => 'add', 'type' => 'note', 'id' => $note, 'values' => $here + [
                'x' => 500, 'y' => 0, 'toX' => 900, 'toY' => 1000, 'words' => 'Render', 'assumption' => false,
            ]],
            ['do' => 'add', 'type' => 'dimension', 'id' => $dimension, 'values' => $here + [
                'x1' => 1000, 'y1' => 900, 'x2' => 2000, 'y2' => 900, 'direction' => 0, 'off' => -400,
            ]],
        ]);
        $things = array_map(
            static fn (string $type, string $id): array => ['type' => $type, 'id' => $id],
            ['outline', 'note', 'dimension'],
            [$face, $note, $dimension],
        );
        $this->desk->change([['do' => 'arrange', 'arrange' => ['things' => $things, 'mirror' => [[3000, 0], [3000, 1]], 'copies' => 1]]]);
        $corners = array_map(static fn (JsonValue $r): JsonValue => $r->get('values'), $this->rows('outlineCorner'));
        $of = array_values(array_filter($corners, static fn (JsonValue $c): bool => $face !== $c->get('outline')->text()));
        $told = array_map(static fn (JsonValue $c): array => array_map(
            static fn (string $key): float => $c->get($key)->number(),
            ['order', 'x', 'y', 'rise'],
        ), $of);
        sort($told);
        self::assertEquals([[0, 5000, 900, 0], [1, 4000, 900, 0], [2, 4000, 2100, -300], [3, 5000, 2100, 0]], $told);
        $dimensions = array_map(static fn (JsonValue $r): JsonValue => $r->get('values'), $this->rows('dimension'));
        self::assertCount(2, $dimensions);
        $copy = 400.0 === $dimensions[0]->get('off')->number() ? $dimensions[0] : $dimensions[1];
        self::assertEqualsWithDelta([5000.0, 4000.0, 400.0], [$copy->get('x1')->number(), $copy->get('x2')->number(), $copy->get('off')->number()], 1e-6);
        self::assertCount(2, $this->rows('note'));
    }

    public function testWhatCannotBeDrawnOrArrangedIsRefusedWithItsPlace(): void
    {
        $id = Desk::newId();
        self::assertStringContainsString('crosses stretch', $this->refusal($this->line($id, '0 0; 100 100; 100 0; -10 90', true)));
        self::assertStringContainsString('two or more', $this->refusal($this->line($id, '0 0')));
        $dimension = ['storey' => $this->desk->storey, 'side' => null, 'x1' => 0, 'y1' => 0, 'x2' => 0, 'y2' => 900, 'direction' => 0, 'off' => 9];
        self::assertStringContainsString('lie apart', $this->refusal(['do' => 'add', 'type' => 'dimension', 'id' => $id, 'values' => $dimension]));
        $this->desk->change([$this->line($id, '0 0; 100 100')]);
        $arrange = static fn (array $how): array => ['do' => 'arrange', 'arrange' => ['things' => [['type' => 'drawnLine', 'id' => $id]]] + $how];
        self::assertStringContainsString('one of the three', $this->refusal($arrange([])));
        self::assertStringContainsString('lie apart', $this->refusal($arrange(['mirror' => [[5, 5], [5, 5]]])));
        self::assertStringContainsString('from 0 to 500', $this->refusal($arrange(['by' => [1, 1], 'copies' => 501])));
        $wall = $this->desk->chain([[0, 0], [2000, 0]]);
        $this->desk->change([$wall['operation']]);
        $walls = ['things' => [['type' => 'wall', 'id' => $wall['walls'][0]]], 'by' => [1, 1]];
        self::assertStringContainsString('cannot be arranged', $this->refusal(['do' => 'arrange', 'arrange' => $walls]));
    }

    /** @param array<string, mixed> $operation */
    private function refusal(array $operation): string
    {
        return json_encode($this->desk->refused(422, [$operation]), \JSON_THROW_ON_ERROR);
    }

    public function testAShapeDrawnOnADetailIsACorniceRoundTheWallsThatFollowsThem(): void
    {
        $ring = $this->desk->chain([[100, 100], [5900, 100], [5900, 3900], [100, 3900]], true);
        [$detail, $profile, $sweep] = [Desk::newId(), Desk::newId(), Desk::newId()];
        $this->desk->change([
            $ring['operation'],
            ['do' => 'add', 'type' => 'side', 'id' => $detail, 'values' => ['name' => 'Details']],
            // 50 wide, 100 high, drawn somewhere on the detail.
            $this->line($profile, '7000 300; 7050 300; 7050 400; 7000 400', true, $detail),
            ['do' => 'add', 'type' => 'sweep', 'id' => $sweep, 'values' => [
                'storey' => $this->desk->storey, 'name' => 'Cornice', 'profile' => $profile, 'heldX' => 0, 'heldY' => 1, 'level' => 2700,
            ]],
        ]);
        $volume = fn (): float => array_sum(array_map(
            static fn (JsonValue $q): float => 'swept' === $q->get('name')->text() ? $q->get('volumeM3')->number() : 0.0,
            JsonValue::of($this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/quantities"))->get('quantities')->items(),
        ));
        self::assertEqualsWithDelta(0.1 * (6.1 * 4.1 - 6 * 4.0), $volume(), 1e-6);
        $this->arrange('drawnLine', $profile, ['by' => [-3000, 5]]);
        self::assertEqualsWithDelta(0.1 * (6.1 * 4.1 - 6 * 4.0), $volume(), 1e-6, 'Where on its detail it lies is no matter.');
        $path = Desk::newId();
        $this->desk->change([
            $this->line($path, '0 0; 3000 0'),
            ['do' => 'set', 'type' => 'sweep', 'id' => $sweep, 'values' => ['path' => $path]],
        ]);
        self::assertEqualsWithDelta(0.005 * 3.0, $volume(), 1e-9);
        $this->desk->change([['do' => 'remove', 'type' => 'drawnLine', 'id' => $profile]]);
        self::assertSame([], $this->rows('sweep'), 'Without its profile there is none.');
    }
}
