<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;

/** What others on the machine, and other pages in the browser, can do with a running instance: nothing. */
final class MachineTest extends TestCase
{
    public function testNoProcessOfTheInstanceIsRoot(): void
    {
        $var = (string) getenv('PLINTH_VAR');
        $children = glob("$var/run/*.child");
        self::assertIsArray($children);
        self::assertGreaterThanOrEqual(7, \count($children), 'Database, PHP, nginx and four workers.');
        foreach ($children as $child) {
            $group = (int) file_get_contents($child);
            $owner = fileowner("/proc/$group");
            self::assertIsInt($owner);
            self::assertNotSame(0, $owner, basename($child));
        }
    }

    public function testWhatIsSecretIsTheInstancesOwn(): void
    {
        $var = (string) getenv('PLINTH_VAR');
        foreach ([
            $var => 0o700,
            "$var/secret" => 0o600,
            "$var/database-password" => 0o600,
            "$var/run" => 0o700,
            "$var/run/accounts.sql" => 0o600,
        ] as $path => $mode) {
            self::assertSame(\sprintf('%o', $mode), \sprintf('%o', (int) fileperms($path) & 0o777), $path);
        }
        self::assertGreaterThanOrEqual(32, \strlen(trim((string) file_get_contents("$var/database-password"))));
        // The database is on no port, and knows nobody without the password but its own account of the system.
        $networking = Database::open()->query('SELECT @@skip_networking');
        self::assertNotFalse($networking);
        self::assertEquals(1, $networking->fetchColumn());
        $this->expectException(\PDOException::class);
        new \PDO("mysql:unix_socket=$var/run/db.sock;dbname=plinth", 'plinth_app', 'plinth');
    }

    /** On every answer, whatever it is and whoever gives it: the page, a script, the API, a picture, a refusal, nothing. */
    public function testEveryAnswerCarriesTheHeadersOfSafety(): void
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $desk->bringIn(__DIR__.'/../../demo/station-site-sketch.jpg');
        $desk->imported();
        $index = $desk->client->send('GET', '/')[1]['text'] ?? null;
        self::assertIsString($index);
        self::assertSame(1, preg_match('#/assets/[^"]+\.js#', $index, $script));
        foreach ([
            '/',
            $script[0],
            '/no/such/page',
            '/api/health',
            '/api/projects',
            '/api/no-such-thing',
            $desk->ofPage('tiles/0/0/0'),
            "/api/projects/$desk->id/pages/$desk->page/preview",
            "/api/projects/$desk->id/storeys/$desk->storey/plan.dxf",
        ] as $path) {
            self::assertNotSame('', $cookies = $desk->client->cookies());
            curl_setopt_array($curl = curl_init(getenv('PLINTH_ADDRESS').$path), [
                \CURLOPT_RETURNTRANSFER => true,
                \CURLOPT_HEADER => true,
                \CURLOPT_COOKIE => $cookies,
            ]);
            $answer = curl_exec($curl);
            self::assertIsString($answer);
            $head = strtolower(substr($answer, 0, curl_getinfo($curl, \CURLINFO_HEADER_SIZE)));
            foreach ([
                "content-security-policy: default-src 'self'",
                "frame-ancestors 'none'",
                'x-content-type-options: nosniff',
                'referrer-policy: same-origin',
            ] as $header) {
                self::assertSame(1, substr_count($head, $header), "$path: $header in\n$head");
            }
        }
    }

    /** Whoever dawdles holds nobody up: connections that never say what they want are let go, and others are answered meanwhile. */
    public function testHalfOpenRequestsHoldNobodyUp(): void
    {
        $url = parse_url((string) getenv('PLINTH_ADDRESS'));
        self::assertIsArray($url);
        self::assertIsInt($url['port'] ?? null);
        $held = [];
        for ($i = 0; $i < 900; ++$i) {
            $socket = @stream_socket_client("tcp://127.0.0.1:{$url['port']}", $code, $message, 2.0);
            if (false !== $socket) {
                fwrite($socket, "GET /api/health HTTP/1.1\r\nHost: plinth\r\nX-Slow: ");
                $held[] = $socket;
            }
        }
        self::assertGreaterThan(800, \count($held));
        for ($i = 0; $i < 20; ++$i) {
            self::assertSame(200, Client::ofStack()->send('GET', '/api/health')[0]);
        }
        array_map(fclose(...), $held);
    }
}
