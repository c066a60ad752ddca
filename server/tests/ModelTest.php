<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;

/** A stretched copy is offered as such; own factors come on the user's word only, and true proportions can be put back. */
final class ModelTest extends TestCase
{
    public function testOwnFactorsAreOfferedTakenAndPutBack(): void
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $desk->bringIn(__DIR__.'/../../demo/sallow-fen-ground.jpg');
        // 5 mm per pixel along x, 5.075 along y: a copy that came out 1.5 % too low.
        foreach ([
            [[500, 500], [2500, 500], '10 000'],
            [[500, 2000], [2500, 2000], '10 000'],
            [[500, 500], [500, 2000], '7 612.5'],
            [[2500, 500], [2500, 2000], '7 612.5'],
        ] as [$a, $b, $text]) {
            $desk->change($desk->knownLength([$a, $b], $text));
        }
        $drawing = (string) $desk->drawing;
        [$a, $b] = [Desk::newId(), Desk::newId()];
        $pick = static fn (string $id, float $x): array => [
            'do' => 'add',
            'type' => 'pick',
            'id' => $id,
            'values' => ['drawing' => $drawing, 'x' => $x, 'y' => 500.0, 'sigmaPx' => 0.5],
        ];
        $desk->change([$pick($a, 510.0), $pick($b, 2490.0), [
            'do' => 'add',
            'type' => 'gridPick',
            'id' => Desk::newId(),
            'values' => ['drawing' => $drawing, 'a' => $a, 'b' => $b, 'axis' => 'x'],
        ]]);
        $report = self::report($desk);
        self::assertSame('similar', $report['model'], 'Never by itself.');
        self::assertIsArray($report['offers']);
        self::assertIsArray($offer = $report['offers'][0]);
        self::assertSame('stretched', $offer['model']);
        self::assertIsString($offer['sentence']);
        self::assertStringContainsString('disagree by 1.48 %', $offer['sentence']);
        $desk->change([['do' => 'set', 'type' => 'drawing', 'id' => $drawing, 'values' => ['model' => 'stretched']]]);
        $report = self::report($desk);
        self::assertSame('stretched', $report['model']);
        self::assertSame([], $report['offers']);
        self::assertIsArray($report['stretch']);
        self::assertEqualsWithDelta(5.0 / 5.075, Desk::float($report['stretch']['x']) / Desk::float($report['stretch']['y']), 1e-4);
        // With the lengths along y gone, own factors are not determined, and the simplest model holds.
        $lengths = Desk::rows($desk->state(), 'knownLength');
        $desk->change(
            array_map(
                static fn (array $l): array => ['do' => 'remove', 'type' => 'knownLength', 'id' => $l['id']],
                array_values(array_filter($lengths, static fn (array $l): bool => '7 612.5' === $l['values']['text'])),
            ),
        );
        self::assertSame('similar', self::report($desk)['model']);
        $desk->client->ok('POST', "/api/projects/$desk->id/undo", ['id' => Desk::newId()]);
        self::assertSame('stretched', self::report($desk)['model']);
        $desk->change(
            [['do' => 'set', 'type' => 'drawing', 'id' => $drawing, 'values' => ['model' => 'similar']]],
            Desk::int($desk->state()['revision']),
        );
        self::assertSame('similar', self::report($desk)['model']);
    }

    /** @return array<mixed> */
    private static function report(Desk $desk): array
    {
        $fits = $desk->state()['fits'];
        self::assertIsArray($fits);
        self::assertIsArray($fits[0]);

        return $fits[0];
    }
}
