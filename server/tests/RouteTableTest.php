<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Kernel;
use Symfony\Component\Routing\Route;
use Symfony\Component\Routing\RouterInterface;

/**
 * Who may use what: every route of the application, tried signed out, as a stranger, as one who reads, as one who edits and as the
 * owner. The table is held against the router: a route that is not in it fails.
 */
final class RouteTableTest extends TestCase
{
    private const PROJECT = '/api/projects/{project}';
    private const PAGE = self::PROJECT.'/pages/{id}';
    private const DRAWING = self::PROJECT.'/drawings/{id}';
    private const STOREY = self::PROJECT.'/storeys/{id}';

    private const ANYBODY = ['GET /api/account', 'POST /api/sign-in', 'POST /api/demo-sign-in', 'POST /api/sign-out', 'GET /api/health'];
    private const SIGNED_IN = [
        'GET /api/account/sessions', 'DELETE /api/account/sessions', 'DELETE /api/account/sessions/{session}', 'POST /api/account/password', 'GET /api/work', 'GET /api/length', 'GET /api/lengths', 'GET /api/bearing', 'GET /api/pitch', 'GET /api/pattern', 'GET /api/objects', 'GET /api/object', 'GET /api/opening-width', 'GET /api/spacings', 'POST /api/rooms-table',
        'GET /api/meter', 'POST /api/meter', 'GET /api/projects', 'POST /api/projects', 'POST /api/archives', 'GET /api/drop-in', 'POST /api/drop-in/scan',
    ];
    private const READER = [
        'GET '.self::PROJECT, 'GET '.self::PROJECT.'/changes', 'GET '.self::PROJECT.'/history', 'GET '.self::PROJECT.'/pass', 'GET '.self::PROJECT.'/shares', 'GET '.self::PROJECT.'/arrivals/{id}', 'GET '.self::PROJECT.'/jobs/{kind}/{id}',
        'GET '.self::PAGE.'/lines', 'GET '.self::PAGE.'/preview', 'GET '.self::PAGE.'/{version}/tiles/{z}/{y}/{x}', 'GET '.self::PAGE.'/found', 'GET '.self::PAGE.'/ticks', 'POST '.self::PAGE.'/pictures',
        'GET '.self::DRAWING.'/spread', 'GET '.self::DRAWING.'/flatness', 'GET '.self::DRAWING.'/fits', 'GET '.self::DRAWING.'/gap', 'GET '.self::DRAWING.'/risers', 'GET '.self::DRAWING.'/misfit', 'GET '.self::DRAWING.'/bearing', 'GET '.self::DRAWING.'/probe',
        'GET '.self::DRAWING.'/proposals', 'GET '.self::DRAWING.'/readings', 'GET '.self::DRAWING.'/facade', 'GET '.self::DRAWING.'/rectified', 'GET '.self::DRAWING.'/rectified/{shape}/tiles/{z}/{y}/{x}',
        'GET '.self::STOREY.'/plan.dxf', 'GET '.self::STOREY.'/plan.json', 'GET '.self::STOREY.'/bodies', 'GET '.self::STOREY.'/heights', 'GET '.self::STOREY.'/stairs', 'GET '.self::STOREY.'/fills', 'GET '.self::STOREY.'/outer', 'GET '.self::PROJECT.'/building.glb', 'GET '.self::PROJECT.'/building.ifc', 'GET '.self::PROJECT.'/building.dxf', 'GET '.self::PROJECT.'/tables.ods', 'GET '.self::PROJECT.'/tables.xlsx', 'GET '.self::PROJECT.'/tables.zip', 'GET '.self::PROJECT.'/plan.geojson', 'GET '.self::PROJECT.'/archive.zip', 'GET '.self::PROJECT.'/map-reference', 'GET '.self::PROJECT.'/quantities', 'GET '.self::PROJECT.'/escape', 'GET '.self::PROJECT.'/enclosures', 'GET '.self::PROJECT.'/quantities.csv', 'GET '.self::STOREY.'/plausible', 'GET '.self::STOREY.'/rooms-table', 'GET '.self::STOREY.'/settled',
        'GET '.self::PROJECT.'/drawn-lines/{id}', 'GET '.self::PROJECT.'/plan.json', 'GET '.self::PROJECT.'/sheets/proposal', 'GET '.self::PROJECT.'/sheets/set.pdf', 'GET '.self::PROJECT.'/sheets/{id}/sheet.svg', 'GET '.self::PROJECT.'/sheets/{id}/sheet.pdf', 'GET '.self::PROJECT.'/sheets/{id}/sheet.png', 'GET '.self::PROJECT.'/sheets/{id}/tiles.pdf', 'GET '.self::PROJECT.'/storeys/{id}/sweeps', 'GET '.self::PROJECT.'/outlines/{id}', 'GET '.self::PROJECT.'/sides/{id}/corners', 'GET '.self::PROJECT.'/sides/{id}/view', 'GET '.self::PROJECT.'/sides/{id}/view.dxf', 'GET '.self::PROJECT.'/sides/{id}/openings', 'GET '.self::PROJECT.'/boundaries/{id}', 'GET '.self::PROJECT.'/boundaries/{id}/clearances', 'POST '.self::PROJECT.'/copies',
        'PUT '.self::PROJECT.'/presence/{page}', 'DELETE '.self::PROJECT.'/presence/{page}',
    ];
    private const EDITOR = [
        'POST '.self::PROJECT.'/changes', 'POST '.self::PROJECT.'/try', 'POST '.self::PROJECT.'/undo', 'POST '.self::PROJECT.'/redo', 'POST '.self::PROJECT.'/sources', 'POST '.self::PROJECT.'/drop-in', 'POST '.self::PROJECT.'/document',
        'POST '.self::PROJECT.'/jobs/{kind}/{id}', 'POST '.self::PROJECT.'/jobs/{kind}/{id}/stop',
        'POST '.self::PAGE.'/match', 'POST '.self::DRAWING.'/proposals/refuse', 'POST '.self::DRAWING.'/readings/refuse', 'POST '.self::DRAWING.'/facade/refuse',
    ];
    /** of another's share; one's own anybody may end */
    private const OWNER = [
        'PUT '.self::PROJECT.'/shares', 'DELETE '.self::PROJECT.'/shares/{user}', 'DELETE '.self::PROJECT, 'PUT '.self::PROJECT.'/bin',
        'DELETE '.self::PROJECT.'/bin', 'GET '.self::PROJECT.'/tokens', 'POST '.self::PROJECT.'/tokens', 'DELETE '.self::PROJECT.'/tokens/{id}',
    ];

    /** @return iterable<string, array{list<string>, array{int|null, int|null, int|null, int|null, int|null}}> */
    public static function table(): iterable
    {
        // What nobody, a stranger, a reader, an editor and the owner are answered; null where they are let through.
        yield 'for anybody' => [self::ANYBODY, [null, null, null, null, null]];
        yield 'for who is signed in' => [self::SIGNED_IN, [401, null, null, null, null]];
        yield 'for readers' => [self::READER, [401, 404, null, null, null]];
        yield 'for editors' => [self::EDITOR, [401, 404, 403, null, null]];
        yield 'for owners' => [self::OWNER, [401, 404, 403, 403, null]];
    }

    /**
     * @param list<string> $routes
     * @param array{int|null, int|null, int|null, int|null, int|null} $expected
     */
    #[DataProvider('table')]
    public function testEachRouteLetsThroughWhomItShould(array $routes, array $expected): void
    {
        [$desk, $clients] = self::people();
        foreach ($routes as $route) {
            [$method, $path] = explode(' ', $route);
            $path = strtr($path, [
                '{project}' => $desk->id, '/pages/{id}' => "/pages/$desk->page", '/drawings/{id}' => "/drawings/$desk->drawing", '/storeys/{id}' => "/storeys/$desk->storey",
                '{id}' => Desk::newId(), '{page}' => Desk::newId(), '{user}' => Desk::newId(), '{session}' => Desk::newId(), '{shape}' => str_repeat('0', 40), '{version}' => str_repeat('0', 16), '{z}' => '0', '{y}' => '0', '{x}' => '0',
            ]);
            foreach ($clients as $i => $client) {
                // What signs in or out is tried by somebody who does not go on afterwards.
                $who = str_contains($route, '/api/account') || str_contains($route, 'sign-') ? clone $client : $client;
                [$status, $answer] = $who->send(
                    $method,
                    $path,
                    'GET' === $method ? null : [],
                    headers: ['csrf-token: csrf-token', 'Sec-Fetch-Site: same-origin'],
                );
                $what = "$route as ".['nobody', 'a stranger', 'a reader', 'an editor', 'the owner'][$i].": $status ".json_encode($answer);
                self::assertLessThan(500, $status, $what);
                if (null !== $expected[$i]) {
                    self::assertSame($expected[$i], $status, $what);
                } elseif (404 !== $status || !str_contains($path, $desk->id)) {
                    self::assertNotContains($status, [401, 403], $what);
                }
                if ('GET' !== $method) {
                    self::assertSame(
                        403,
                        $who->send(
                            $method,
                            $path,
                            [],
                            headers: ['Sec-Fetch-Site: cross-site', 'Origin: https://elsewhere.example', 'Content-Type: text/plain'],
                        )[0],
                        "$route from another site",
                    );
                }
                if ('DELETE /api/account/sessions' === $route && 0 < $i) {
                    $clients[$i] = self::again($i, $desk);
                }
            }
        }
    }

    public function testTheTableKnowsEveryRouteAndEveryRouteSaysWhoMayUseIt(): void
    {
        $found = [];
        foreach (self::routes() as $route) {
            $controller = $route->getDefault('_controller');
            self::assertIsString($controller);
            [$class, $action] = explode('::', $controller.'::__invoke');
            self::assertTrue(class_exists($class));
            $needs = (new \ReflectionMethod($class, $action))->getAttributes(Needs::class);
            self::assertCount(1, $needs, "$controller does not say who may use it.");
            $isOfProject = str_contains($route->getPath(), '{project}');
            self::assertSame(
                $isOfProject,
                \in_array($needs[0]->newInstance()->who, [Who::Reader, Who::Editor, Who::Owner], true),
                $controller,
            );
            foreach ($route->getMethods() as $method) {
                $found[] = "$method {$route->getPath()}";
            }
        }
        $known = [...self::ANYBODY, ...self::SIGNED_IN, ...self::READER, ...self::EDITOR, ...self::OWNER];
        sort($found);
        sort($known);
        self::assertSame($known, $found);
    }

    /** @return array{Desk, list<Client>} */
    private static function people(): array
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $desk->bringIn(__DIR__.'/../../demo/sallow-fen-ground.jpg');
        $clients = [
            Client::ofStack(),
            Client::ofStack()->signIn('stranger@plinth.example'),
            Client::ofStack()->signIn('reader@plinth.example'),
            Client::ofStack()->signIn('editor@plinth.example'),
            $desk->client,
        ];
        foreach (['reader@plinth.example' => 'read', 'editor@plinth.example' => 'edit'] as $email => $role) {
            $desk->client->ok('PUT', "/api/projects/$desk->id/shares", ['email' => $email, 'role' => $role]);
        }

        return [$desk, $clients];
    }

    /** Signed in anew. */
    private static function again(int $i, Desk $desk): Client
    {
        return 4 === $i ? $desk->client->signIn() : Client::ofStack()->signIn(
            [1 => 'stranger@plinth.example', 2 => 'reader@plinth.example', 3 => 'editor@plinth.example'][$i]
            ?? ''
        );
    }

    /** @return iterable<Route> */
    private static function routes(): iterable
    {
        $kernel = new Kernel('prod', false);
        $kernel->boot();
        $router = $kernel->getContainer()->get('router');
        self::assertInstanceOf(RouterInterface::class, $router);

        return $router->getRouteCollection();
    }
}
