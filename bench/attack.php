<?php

declare(strict_types=1);

// What an attacker gets done, and what others feel of it: guessing at passwords, changes that cost too much, and kills without warning, on
// the running stack. Figures, no promises: the tests hold those.
// Usage: attack.php [guesses] [kills]

require __DIR__.'/../vendor/autoload.php';

use Plinth\Server\Tests\Client;
use Plinth\Server\Tests\Desk;
use Plinth\Server\Tests\PriceTest;

$guesses = (int) ($argv[1] ?? 10_000);
$kills = (int) ($argv[2] ?? 100);

/** @param list<float> $times s */
function p95(array $times): float
{
    sort($times);

    return [] === $times ? 0.0 : $times[(int) floor(0.95 * (count($times) - 1))];
}

/**
 * Runs work in processes of their own until the body is done; gives what each has counted.
 *
 * @param list<callable(): array<string, float|int>> $works each is called again and again
 *
 * @return list<list<array<string, float|int>>>
 */
function beside(array $works, callable $body): array
{
    $children = [];
    foreach ($works as $work) {
        $pipe = stream_socket_pair(STREAM_PF_UNIX, STREAM_SOCK_STREAM, 0);
        $pid = pcntl_fork();
        if (0 === $pid) {
            fclose($pipe[0]);
            $stop = false;
            pcntl_async_signals(true);
            pcntl_signal(SIGUSR1, static function () use (&$stop): void {
                $stop = true;
            });
            $told = [];
            while (!$stop) {
                try {
                    $told[] = $work();
                } catch (Throwable $e) {
                    $told[] = ['failed' => 1];
                    fwrite(STDERR, $e->getMessage()."\n");
                }
            }
            fwrite($pipe[1], json_encode($told));
            fclose($pipe[1]);
            exit(0);
        }
        fclose($pipe[1]);
        $children[$pid] = $pipe[0];
    }
    $body();
    foreach (array_keys($children) as $pid) {
        posix_kill($pid, SIGUSR1);
    }
    $told = [];
    foreach ($children as $pid => $pipe) {
        $told[] = json_decode((string) stream_get_contents($pipe), true) ?? [];
        pcntl_waitpid($pid, $status);
    }

    return $told;
}

$timed = static function (callable $do): float {
    $start = microtime(true);
    $do();

    return microtime(true) - $start;
};
$health = static function () use ($timed): array {
    $seconds = $timed(static fn () => Client::ofStack()->send('GET', '/api/health'));
    usleep(20_000);

    return ['s' => $seconds];
};

echo "== Guessing: $guesses variants of one address, eight at a time\n";
$email = 'reader@plinth.example';
$variant = static fn (int $i): string => match ($i % 4) {
    0 => $email.str_repeat(' ', 1 + $i % 60),
    1 => str_replace('e', ['é', 'è', 'ê', 'ｅ', 'E'][$i % 5], $email),
    2 => strtoupper(substr($email, 0, $i % 20)).substr($email, $i % 20),
    default => str_repeat("\u{00A0}", 1 + $i % 40).$email,
};
$judged = 0;
$quiet = [];
for ($i = 0; $i < 100; ++$i) {
    $quiet[] = $health()['s'];
}
$seconds = 0.0;
$felt = beside([$health], static function () use ($guesses, $variant, &$judged, &$seconds, $timed): void {
    $seconds = $timed(static function () use ($guesses, $variant, &$judged): void {
        $many = curl_multi_init();
        $add = static function (int $i) use ($many, $variant): void {
            $curl = curl_init(getenv('PLINTH_ADDRESS').'/api/sign-in');
            curl_setopt_array($curl, [CURLOPT_RETURNTRANSFER => true, CURLOPT_POST => true, CURLOPT_POSTFIELDS => json_encode(['email' => $variant($i), 'password' => "guess $i"]), CURLOPT_HTTPHEADER => ['Content-Type: application/json', 'csrf-token: csrf-token', 'Sec-Fetch-Site: same-origin', 'X-Forwarded-For: 198.51.100.'.(1 + $i % 8)]]);
            curl_multi_add_handle($many, $curl);
        };
        $next = 0;
        while ($next < min(8, $guesses)) {
            $add($next++);
        }
        do {
            curl_multi_exec($many, $running);
            while (false !== ($done = curl_multi_info_read($many))) {
                $judged += 401 === curl_getinfo($done['handle'], CURLINFO_RESPONSE_CODE) ? 1 : 0;
                curl_multi_remove_handle($many, $done['handle']);
                if ($next < $guesses) {
                    $add($next++);
                    $running = 1;
                }
            }
            curl_multi_select($many, 0.05);
        } while ($running > 0);
    });
});
printf("  %d of them were judged at all, in %.0f s; health p95 %.0f ms meanwhile, %.0f ms before\n", $judged, $seconds, 1000 * p95(array_column($felt[0], 's')), 1000 * p95($quiet));

echo "== Known and unknown addresses, s a try\n";
foreach (['known' => 'editor@plinth.example', 'unknown' => 'nobody-at-all@plinth.example'] as $what => $address) {
    $times = [];
    for ($i = 0; $i < 12; ++$i) {
        $times[] = $timed(static fn () => Client::ofStack()->send('POST', '/api/sign-in', ['email' => $address, 'password' => "wrong $i"], headers: ['csrf-token: csrf-token', 'Sec-Fetch-Site: same-origin', "X-Forwarded-For: 2001:db8:$i:".mt_rand(1, 9999).'::1']));
        if ('known' === $what && 4 === $i) {
            break; // the account is slowed from here on
        }
    }
    sort($times);
    printf("  %-8s %.3f\n", $what, $times[intdiv(count($times), 2)]);
}

echo "== Changes that cost too much, while ten others edit\n";
$editor = static function (): array {
    static $desk = null;
    static $i = 0;
    $desk ??= new Desk(Client::ofStack()->signIn());
    ++$i;
    $start = microtime(true);
    $desk->change([$desk->chain([[$i * 1000, 0], [$i * 1000, 3000]])['operation']]);

    $seconds = microtime(true) - $start;
    usleep(200_000);

    return ['s' => $seconds];
};
$slowest = [];
$felt = beside(array_fill(0, 10, $editor), static function () use (&$slowest): void {
    usleep(3_000_000);
    foreach (PriceTest::prohibited() as $what => [$operations]) {
        for ($try = 0; $try < 5; ++$try) {
            $desk = new Desk(Client::ofStack()->signIn());
            $body = Desk::body($operations($desk), $desk->revision);
            $start = microtime(true);
            [$status] = $desk->client->send('POST', "/api/projects/$desk->id/changes", $body);
            $slowest[$what] = max($slowest[$what] ?? 0.0, microtime(true) - $start);
            if ($status < 400 || $status >= 500) {
                echo "  $what was answered $status\n";
            }
        }
    }
});
foreach ($slowest as $what => $s) {
    printf("  %-36s slowest of five %.2f s\n", $what, $s);
}
printf("  the ten others: p95 %.0f ms an edit\n", 1000 * p95(array_merge(...array_map(static fn (array $t): array => array_column($t, 's'), $felt))));

echo "== Removing, s a change\n";
foreach ([400, 1900] as $count) {
    $desk = new Desk(Client::ofStack()->signIn());
    $walls = [];
    foreach (array_chunk(range(0, $count - 1), 400) as $some) {
        $operations = [];
        foreach ($some as $i) {
            $chain = $desk->chain([[6000 * ($i % 50), 5000 * intdiv($i, 50)], [6000 * ($i % 50) + 4000, 5000 * intdiv($i, 50)]]);
            $operations[] = $chain['operation'];
            $walls[] = $chain['walls'][0];
        }
        $desk->change($operations);
    }
    $s = $timed(static fn () => $desk->change([['do' => 'removeMany', 'type' => 'wall', 'ids' => $walls]]));
    printf("  %d walls with their nodes %.2f\n", $count, $s);
}

echo "== $kills kills without warning, while five edit and two bring in\n";
$var = (string) getenv('PLINTH_VAR');
$sure = static function (): array {
    static $desk = null;
    static $i = 0;
    static $made = [];
    $desk ??= new Desk(Client::ofStack()->signIn());
    ++$i;
    $chain = $desk->chain([[$i * 1000, 0], [$i * 1000, 3000]]);
    $body = Desk::body([$chain['operation']], $desk->revision);
    for ($try = 0; $try < 600; ++$try) {
        [$status, $answer] = $desk->client->send('POST', "/api/projects/$desk->id/changes", $body);
        if (200 === $status) {
            $desk->revision = $answer['revision'];
            $made[] = $chain['walls'][0];
            break;
        }
        if (!in_array($status, [0, 502, 503, 504], true)) {
            fwrite(STDERR, "answered $status ".json_encode($answer)."\n");
        }
        usleep(100_000);
    }
    usleep(30_000);
    $there = 0 === $i % 40 ? array_column(Desk::rows(waited($desk), 'wall'), 'id') : null;

    return ['made' => 1, 'lost' => null === $there ? 0 : count(array_diff($made, $there)), 'doubled' => null === $there ? 0 : count($there) - count(array_unique($there))];
};
function waited(Desk $desk): array
{
    for ($try = 0; $try < 600; ++$try) {
        [$status, $state] = $desk->client->send('GET', "/api/projects/$desk->id");
        if (200 === $status) {
            return $state;
        }
        usleep(100_000);
    }
    throw new RuntimeException('The stack did not come back.');
}
$import = static function (): array {
    static $desk = null;
    $desk ??= new Desk(Client::ofStack()->signIn());
    $change = Desk::newId();
    $told = null;
    for ($try = 0; $try < 900; ++$try) {
        [$status, $answer] = null === $told
            ? $desk->client->send('POST', "/api/projects/$desk->id/sources", form: ['change' => $change, 'storey' => $desk->storey, 'file' => new CURLFile(__DIR__.'/../demo/station-site-sketch.jpg', 'image/jpeg', 'a.jpg')])
            : $desk->client->send('GET', "/api/projects/$desk->id/arrivals/$change");
        if (in_array($status, [200, 202], true)) {
            $told = $answer['arrival'];
            if (!in_array($told['progress']['state'], ['waiting', 'working'], true)) {
                break;
            }
        }
        usleep(100_000);
    }
    $rows = array_filter(Desk::rows(waited($desk), 'page'), static fn (array $p): bool => $p['revision'] === ($told['revision'] ?? -1));
    $page = array_values($rows)[0]['id'] ?? null;
    for ($try = 0; $try < 900; ++$try) {
        $state = $desk->client->send('GET', "/api/projects/$desk->id/jobs/import-page/$page")[1]['state'] ?? 'away';
        if (in_array($state, ['done', 'failed', 'stopped', 'missing'], true)) {
            return ['imports' => 1, 'ready' => 'done' === $state ? 1 : 0, 'doubled' => count($rows) - 1];
        }
        usleep(100_000);
    }

    return ['imports' => 1, 'ready' => 0, 'doubled' => 0];
};
$told = beside([...array_fill(0, 5, $sure), $import, $import], static function () use ($kills, $var): void {
    for ($i = 0; $i < $kills; ++$i) {
        usleep(mt_rand(500_000, 1_500_000));
        $name = ['php', 'slow1', 'database', 'quick1', 'nginx', 'slow2', 'quick2'][$i % 7];
        $pid = (int) @file_get_contents("$var/run/$name.child");
        if ($pid > 1) {
            posix_kill(-$pid, 9);
        }
    }
    usleep(3_000_000);
});
$sum = static fn (string $key): int => (int) array_sum(array_map(static fn (array $t): float|int => array_sum(array_column($t, $key)), $told));
printf("  %d edits acknowledged, %d lost, %d doubled; %d imports, %d ready\n", $sum('made'), $sum('lost'), $sum('doubled'), $sum('imports'), $sum('ready'));
