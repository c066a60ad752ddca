<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Exchange\PlanDocument\PlanReader;

/** A stair is a row of its storey; what is seen of it, above too, and what does not hold about it, follow at every change. */
final class StairsTest extends TestCase
{
    private Desk $desk;
    private string $upper;

    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
        $this->upper = Desk::newId();
        $this->desk->change([['do' => 'add', 'type' => 'storey', 'id' => $this->upper, 'values' => [
            'name' => 'Upper', 'elevation' => 2700, 'height' => 2600,
        ]]]);
    }

    public function testAStairArrivesAndIsSeenOnBothStoreys(): void
    {
        $id = $this->stair();
        [$shown] = $this->shown($this->desk->storey);
        self::assertSame([$id, true, 180.0, 250.0, 'UP 15 R'], [
            $shown->get('id')->text(), $shown->get('goesUp')->boolean(), $shown->get('riseMm')->number(), $shown->get('goingMm')->number(), $shown->get('words')->text(),
        ]);
        self::assertCount(6 * 3, $shown->get('seen')->items(), 'Six treads lie under 1.2 m, each with a riser and two edges.');
        self::assertSame([], $shown->get('findings')->items());
        [, $dxf] = $this->desk->client->send('GET', $this->storey($this->desk->storey).'/plan.dxf');
        self::assertStringContainsString('UP 15 R', json_encode($dxf, \JSON_THROW_ON_ERROR));
        [$above] = $this->shown($this->upper);
        self::assertSame([$id, false, 'DN 15 R'], [$above->get('id')->text(), $above->get('goesUp')->boolean(), $above->get('words')->text()]);
        // All treads change at once, and still arrive.
        $this->desk->change([['do' => 'set', 'type' => 'stair', 'id' => $id, 'values' => ['risers' => 16, 'rails' => 'both']]]);
        [$shown] = $this->shown($this->desk->storey);
        self::assertSame(168.75, $shown->get('riseMm')->number());
        $bodies = JsonValue::of($this->desk->client->ok('GET', $this->storey($this->desk->storey).'/bodies'))->get('bodies')->items();
        self::assertSame(['stair', 'railing'], array_map(static fn (JsonValue $b): string => $b->get('kind')->text(), $bodies));
        // A storey that is raised raises each of them.
        $this->desk->change([['do' => 'set', 'type' => 'storey', 'id' => $this->upper, 'values' => ['elevation' => 2880]]]);
        self::assertSame(180.0, $this->shown($this->desk->storey)[0]->get('riseMm')->number());
    }

    public function testTheFloorAboveIsOpenOverItAndClosesAgain(): void
    {
        $floor = function (): float {
            $told = JsonValue::of($this->desk->client->ok('GET', $this->storey($this->upper).'/bodies'));
            $z = [];
            foreach ($told->get('forms')->items()[0]->get('vertices')->items() as $i => $v) {
                $z[$i % 3][] = $v->number();
            }

            return (float) \count(array_unique($z[0] ?? []));
        };
        $outline = Desk::newId();
        $corners = array_map(static fn (array $p, int $i): array => ['do' => 'add', 'type' => 'outlineCorner', 'id' => Desk::newId(), 'values' => [
            'outline' => $outline, 'order' => $i, 'x' => $p[0], 'y' => $p[1],
        ]], [[-2000, -2000], [6000, -2000], [6000, 2000], [-2000, 2000]], [0, 1, 2, 3]);
        $this->desk->change([['do' => 'add', 'type' => 'outline', 'id' => $outline, 'values' => [
            'side' => null, 'storey' => $this->upper, 'kind' => 'slab', 'name' => 'Floor', 'top' => 0, 'thickness' => 250,
        ]], ...$corners]);
        self::assertSame(2.0, $floor(), 'A floor of four corners.');
        $id = $this->stair();
        self::assertSame(4.0, $floor(), 'It has a hole.');
        $this->desk->change([['do' => 'remove', 'type' => 'stair', 'id' => $id]]);
        self::assertSame(2.0, $floor());
    }

    public function testTreadsThatDoNotArriveSaySoWithTheNumberThatWould(): void
    {
        $tread = static fn (int $k): string => \sprintf('%d 0; %d 0; %d 900; %d 900', 250 * $k, 250 * ($k + 1), 250 * ($k + 1), 250 * $k);
        $id = $this->stair(['line' => '', 'treads' => implode('|', array_map($tread, range(0, 11))), 'risers' => 15]);
        [$finding] = $this->shown($this->desk->storey)[0]->get('findings')->items();
        self::assertSame(['stair-arrival', 13.0], [$finding->get('code')->text(), $finding->get('risers')->number()]);
        $this->desk->change([['do' => 'set', 'type' => 'stair', 'id' => $id, 'values' => ['risers' => 13]]]);
        self::assertNotContains('stair-arrival', array_map(
            static fn (JsonValue $f): string => $f->get('code')->text(),
            $this->shown($this->desk->storey)[0]->get('findings')->items(),
        ));
    }

    public function testItGoesIntoThePlanDocumentAndWithItsStorey(): void
    {
        $id = $this->stair(['reaches' => $this->upper]);
        $document = $this->desk->client->ok('GET', $this->storey($this->desk->storey).'/plan.json');
        $stair = PlanReader::read(json_encode($document, \JSON_THROW_ON_ERROR))->storeys[0]->stairs[0];
        self::assertSame([$id, 15, null], [$stair->id, $stair->risers, $stair->reaches], 'Of one storey alone none is named that is not there.');
        $this->desk->change([['do' => 'remove', 'type' => 'storey', 'id' => $this->upper]]);
        self::assertNull(Desk::rows($this->desk->state(), 'stair')[0]['values']['reaches']);
    }

    public function testAProjectsOwnLimitsAreHeldAndToldAndGoIntoItsDocument(): void
    {
        $this->stair();
        $limit = Desk::newId();
        $this->desk->change([['do' => 'add', 'type' => 'stairLimit', 'id' => $limit, 'values' => [
            'measure' => 'width', 'least' => 1000, 'most' => null, 'standing' => 'the brief',
        ]]]);
        $finding = $this->shown($this->desk->storey)[0]->get('findings')->items()[0];
        self::assertStringContainsString('(the brief)', $finding->get('message')->text());
        $told = JsonValue::of($this->desk->client->ok('GET', $this->storey($this->desk->storey).'/stairs'))->get('limits')->items();
        self::assertCount(8, $told);
        self::assertContains('the brief', array_map(static fn (JsonValue $l): string => $l->get('standing')->text(), $told));
        $document = $this->desk->client->ok('GET', $this->storey($this->desk->storey).'/plan.json');
        self::assertSame(1000.0, PlanReader::read(json_encode($document, \JSON_THROW_ON_ERROR))->stairLimits[0]->least);
        foreach ([['least' => null], ['least' => 20, 'most' => 10], ['measure' => 'depth'], ['standing' => '']] as $wrong) {
            $this->desk->refused(422, [['do' => 'set', 'type' => 'stairLimit', 'id' => $limit, 'values' => $wrong]]);
        }
        $this->desk->change([['do' => 'remove', 'type' => 'stairLimit', 'id' => $limit]]);
        self::assertSame([], $this->shown($this->desk->storey)[0]->get('findings')->items());
    }

    public function testItGoesToAnotherStoreyWithWhatIsDrawnThereAndIsMovedAsAWhole(): void
    {
        $top = Desk::newId();
        $this->desk->change([['do' => 'add', 'type' => 'storey', 'id' => $top, 'values' => ['name' => 'Top', 'elevation' => 5400, 'height' => 2600]]]);
        $id = $this->stair(['reaches' => $this->upper]);
        $this->desk->change([['do' => 'copy', 'copy' => ['storey' => $this->desk->storey, 'to' => $this->upper]]]);
        [, $copy] = Desk::rows($this->desk->state(), 'stair');
        self::assertSame([$this->upper, null, '0 0; 3500 0'], [$copy['values']['storey'], $copy['values']['reaches'], $copy['values']['line']]);
        $this->desk->change([['do' => 'move', 'type' => 'stair', 'ids' => [$id], 'by' => [100.5, -20]]]);
        $moved = array_column(Desk::rows($this->desk->state(), 'stair'), 'values', 'id')[$id];
        self::assertSame('100.5 -20; 3600.5 -20', $moved['line']);
    }

    /** Fourteen lines 20 px apart on a drawing at 12.5 mm per px: 250 mm, by arithmetic. */
    public function testTheRisersThatADrawingShowsAreCounted(): void
    {
        $image = imagecreatetruecolor(900, 600);
        self::assertInstanceOf(\GdImage::class, $image);
        imagefill($image, 0, 0, (int) imagecolorallocate($image, 240, 240, 238));
        $ink = (int) imagecolorallocate($image, 40, 40, 40);
        foreach ([[100, 100, 800, 104], [100, 500, 800, 504], [100, 100, 104, 504], [796, 100, 800, 504]] as [$x1, $y1, $x2, $y2]) {
            imagefilledrectangle($image, $x1, $y1, $x2, $y2, $ink);
        }
        for ($k = 0; $k < 14; ++$k) {
            imagefilledrectangle($image, 300 + 20 * $k, 250, 301 + 20 * $k, 322, $ink);
        }
        $path = sys_get_temp_dir().'/stair-'.Desk::newId().'.png';
        imagepng($image, $path);
        $this->desk->bringIn($path, 'stair.png');
        unlink($path);
        $this->desk->imported();
        $state = $this->desk->change($this->desk->knownLength([[100.0, 300.0], [800.0, 300.0]], '8750'));
        self::assertNotSame([], $state['fits']);
        $ask = fn (string $query): array => $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/risers?$query");
        $rows = JsonValue::of($this->desk->client->ok('GET', "/api/projects/{$this->desk->id}"))->get('fits')->items()[0]->get('pixelToMm');
        $m = array_merge(...array_map(
            static fn (JsonValue $row): array => array_map(static fn (JsonValue $v): float => $v->number(), $row->items()),
            $rows->items(),
        ));
        $at = static fn (float $x, float $y): array => [$m[0] * $x + $m[1] * $y + $m[2], $m[3] * $x + $m[4] * $y + $m[5]];
        [[$ax, $ay], [$bx, $by]] = [$at(297.0, 286.0), $at(564.0, 286.0)];
        $found = JsonValue::of($ask("ax=$ax&ay=$ay&bx=$bx&by=$by&width=900"))->get('found');
        self::assertSame(14.0, $found->get('risers')->number());
        self::assertEqualsWithDelta(250.0, $found->get('goingMm')->number(), 3.0);
        [[$cx, $cy], [$dx, $dy]] = [$at(120.0, 400.0), $at(700.0, 400.0)];
        self::assertNull($ask("ax=$cx&ay=$cy&bx=$dx&by=$dy&width=900")['found'], 'Nothing is drawn there.');
        // What was traced over it goes along when another length makes it half as large again.
        $stair = $this->stair(['drawing' => $this->desk->drawing, 'line' => "$ax $ay 100; $bx $by"]);
        $lengths = Desk::rows($this->desk->state(), 'knownLength');
        $longer = [['do' => 'set', 'type' => 'knownLength', 'id' => $lengths[0]['id'], 'values' => ['text' => '13125']]];
        $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/changes", Desk::body($longer, $this->desk->revision) + ['tracing' => 'carry']);
        $line = array_column(Desk::rows($this->desk->state(), 'stair'), 'values', 'id')[$stair]['line'];
        self::assertIsString($line);
        $numbers = array_map(floatval(...), explode(' ', str_replace(';', '', $line)));
        self::assertEqualsWithDelta(1.5 * hypot($bx - $ax, $by - $ay), hypot($numbers[3] - $numbers[0], $numbers[4] - $numbers[1]), 0.1);
        self::assertEqualsWithDelta(150.0, $numbers[2], 0.1, 'Its bend is as round.');
        $this->desk->client->refused(422, 'GET', "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/risers?ax=0&ay=0&bx=1&by=1&width=0");
    }

    public function testWhatIsNoStairIsRefusedWithItsPlaceAndWhatCannotStandIsTold(): void
    {
        foreach ([
            ['line' => '0 0'], ['line' => '0 0; x 1'], ['line' => '0 0; 1e9 0'], ['line' => ''], ['risers' => 1], ['risers' => 201], ['width' => 0],
            ['winders' => 40], ['nosing' => 500], ['line' => '', 'treads' => '0 0; 1 1'],
        ] as $wrong) {
            $error = $this->desk->refused(422, [['do' => 'add', 'type' => 'stair', 'id' => Desk::newId(), 'values' => $this->values($wrong)]]);
            self::assertStringContainsString(array_key_last($wrong), json_encode($error, \JSON_THROW_ON_ERROR));
        }
        $id = $this->stair(['line' => '0 0 300; 600 0']);
        $told = JsonValue::of($this->desk->client->ok('GET', $this->storey($this->desk->storey).'/stairs'));
        self::assertSame($id, $told->get('refused')->items()[0]->get('id')->text());
        self::assertStringContainsString('radius', $told->get('refused')->items()[0]->get('message')->text());
    }

    /** @param array<string, mixed> $values */
    private function stair(array $values = []): string
    {
        $this->desk->change([['do' => 'add', 'type' => 'stair', 'id' => $id = Desk::newId(), 'values' => $this->values($values)]]);

        return $id;
    }

    /**
     * @param array<string, mixed> $values
     *
     * @return array<string, mixed>
     */
    private function values(array $values): array
    {
        return [
            'storey' => $this->desk->storey, 'reaches' => null, 'line' => '0 0; 3500 0', 'treads' => '', 'width' => 900, 'risers' => 15,
            'turn' => 'landing', 'winders' => 3, 'build' => 'slab', 'thickness' => 150, 'nosing' => 0, 'rails' => 'none', 'railHeight' => 900,
            'headroom' => 2000, ...$values,
        ];
    }

    private function storey(string $id): string
    {
        return "/api/projects/{$this->desk->id}/storeys/$id";
    }

    /** @return list<JsonValue> */
    private function shown(string $storey): array
    {
        return JsonValue::of($this->desk->client->ok('GET', $this->storey($storey).'/stairs'))->get('stairs')->items();
    }
}
