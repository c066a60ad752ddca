<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\Assert;

/** One more node, started for a test: with a database and files of its own unless its environment says otherwise. */
final class Node
{
    public readonly string $folder;
    private readonly string $port;
    /** @var resource */
    private $process;

    /** @param list<string> $environment NAME=VALUE */
    public function __construct(array $environment)
    {
        $root = \dirname(__DIR__, 2);
        $this->folder = sys_get_temp_dir().'/plinth-node-'.bin2hex(random_bytes(4));
        mkdir($this->folder, 0o700);
        $this->port = trim((string) shell_exec('bash -c '.escapeshellarg("VAR=$this->folder; . $root/ops/lib.sh; free_port")));
        $process = proc_open([
            'env', '-u', 'DATABASE_URL', '-u', 'APP_SECRET', '-u', 'PLINTH_FILES', '-u', 'PLINTH_OBJECTS', "PLINTH_VAR=$this->folder", 'PLINTH_DEMO=1', 'PLINTH_TRUSTED_PROXIES=127.0.0.1', ...$environment,
            "$root/ops/stack", $this->folder, $this->port, getenv('PLINTH_VAR').'/web', 'bash', '-c', 'php server/bin/console plinth:demo --no-interaction; exec sleep infinity',
        ], [], $pipes, $root);
        Assert::assertIsResource($process);
        $this->process = $process;
    }

    /** @return Client once it answers and its demo is there */
    public function client(): Client
    {
        $client = new Client("http://127.0.0.1:$this->port");
        Waiting::until(
            static fn (): ?true => 200 === $client->send('GET', '/api/health')[0] && 200 === $client->send('POST', '/api/demo-sign-in')[0]
                ? true
                : null,
            'The node did not start',
        );

        return $client;
    }

    /** Where other nodes find its database. */
    public function database(): string
    {
        $run = \strlen("$this->folder/run") > 80 ? '/tmp/plinth-'.substr(hash('sha256', $this->folder), 0, 12) : "$this->folder/run";

        return 'mysql://plinth_app:'.trim(
            (string) file_get_contents("$this->folder/database-password"),
        )."@localhost/plinth?unix_socket=$run/db.sock&serverVersion=10.11.19-MariaDB&charset=utf8mb4";
    }

    public function secret(): string
    {
        return trim((string) file_get_contents("$this->folder/secret"));
    }

    public function stop(): void
    {
        posix_kill(proc_get_status($this->process)['pid'], \SIGTERM);
        proc_close($this->process);
        exec('rm -rf '.escapeshellarg($this->folder));
    }
}
