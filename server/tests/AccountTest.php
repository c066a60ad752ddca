<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Server\Change\Refers;

/** Who may do what: everything needs a sign-in, everything is the owner's alone, other sites may not write. */
final class AccountTest extends TestCase
{
    public function testAStrangersRowsCannotBeReachedThroughOnesOwnProject(): void
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $chain = $desk->chain([[0, 0], [3000, 0]]);
        $desk->change([$chain['operation']]);
        $theirs = new Desk(Client::ofStack()->signIn('stranger@plinth.example'));
        self::assertSame(
            'gone',
            $theirs->refused(409, [['do' => 'set', 'type' => 'wall', 'id' => $chain['walls'][0], 'values' => ['thickness' => 5]]])['code'],
        );
        self::assertSame('gone', $theirs->refused(409, [Desk::door($chain['walls'][0], 100, 900)])['code']);
        self::assertSame(1, $theirs->revision, 'Nothing was written.');
    }

    /** The same id in two projects is two rows: neither is in the other's way, whatever is removed, undone or changed. */
    public function testTheSameIdInAnotherProjectIsAnotherRow(): void
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $chain = $desk->chain([[0, 0], [3000, 0]]);
        $desk->change([$chain['operation']], id: $change = Desk::newId());
        $desk->change([['do' => 'remove', 'type' => 'wall', 'id' => $chain['walls'][0]]]);
        $theirs = new Desk(Client::ofStack()->signIn('stranger@plinth.example'));
        $same = $chain['operation'];
        self::assertIsArray($same['trace']);
        $same['trace']['storey'] = $theirs->storey;
        $theirs->change([$same], id: $change);
        $desk->client->ok('POST', "/api/projects/$desk->id/undo", ['id' => Desk::newId()]);
        self::assertSame(
            [$chain['walls'][0]],
            array_column(Desk::rows($desk->state(), 'wall'), 'id'),
            'The undo was not in anybody’s way.',
        );
        $theirs->change([['do' => 'set', 'type' => 'wall', 'id' => $chain['walls'][0], 'values' => ['thickness' => 77]]]);
        self::assertEquals(200, Desk::rows($desk->state(), 'wall')[0]['values']['thickness']);
        self::assertEquals(77, Desk::rows($theirs->state(), 'wall')[0]['values']['thickness']);
        $mine = $desk->state()['derived'];
        self::assertIsArray($mine);
        self::assertNotSame($mine, $theirs->state()['derived']);
    }

    /** Whatever names another row is looked for in its own project: every field of every kind of row. */
    public function testEveryReferenceOfEveryKindOfRowIsChecked(): void
    {
        foreach (Registered::kinds()->classes as $name => $class) {
            $fields = array_filter(
                (new \ReflectionClass($class))->getProperties(),
                static fn (\ReflectionProperty $p): bool => str_contains((string) $p->getType(), 'Uuid') && !\in_array(
                    $p->getName(),
                    ['id', 'project', 'owner'],
                    true,
                ),
            );
            $checked = array_map(static fn (Refers $r): string => $r->field, $class::refers());
            foreach ($fields as $field) {
                self::assertContains($field->getName(), $checked, "$name.{$field->getName()}");
            }
        }
    }

    public function testAnotherSiteCannotWrite(): void
    {
        $client = Client::ofStack()->signIn();
        $desk = new Desk($client);
        foreach ([
            [],
            ['csrf-token: csrf-token', 'Sec-Fetch-Site: cross-site', 'Origin: https://elsewhere.example'],
            ['Sec-Fetch-Site: same-origin'],
        ] as $headers) {
            self::assertSame(
                403,
                $client->send('POST', "/api/projects/$desk->id/changes", Desk::body([], $desk->revision), headers: $headers)[0],
            );
        }
    }

    public function testSigningOutEndsTheSession(): void
    {
        $client = Client::ofStack()->signIn();
        $client->ok('GET', '/api/projects');
        $client->ok('POST', '/api/sign-out');
        $client->refused(401, 'GET', '/api/projects');
    }
}
