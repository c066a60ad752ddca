<?php

declare(strict_types=1);

// How the bench takes its figures.

require __DIR__.'/../vendor/autoload.php';

/** @return float the least of several runs, ms */
function least(callable $work, int $runs): float
{
    $best = \INF;
    for ($i = 0; $i < $runs; ++$i) {
        $start = hrtime(true);
        $work();
        $best = min($best, (hrtime(true) - $start) / 1e6);
    }

    return $best;
}

/**
 * @param array<string, mixed> $question
 *
 * @return array<string, float>
 */
function python(string $script, array $question): array
{
    $process = proc_open(['/usr/bin/python3', __DIR__.'/outside/'.$script], [['pipe', 'r'], ['pipe', 'w']], $pipes);
    if (false === $process) {
        throw new RuntimeException('python3 does not start.');
    }
    fwrite($pipes[0], json_encode($question, \JSON_THROW_ON_ERROR));
    fclose($pipes[0]);
    $answer = json_decode((string) stream_get_contents($pipes[1]), true, 64, \JSON_THROW_ON_ERROR);
    proc_close($process);

    return $answer;
}

/** @param list<float> $times */
function p95(array $times): float
{
    sort($times);

    return $times[(int) floor(0.95 * (count($times) - 1))];
}

/** @return float ms */
function timed(callable $work): float
{
    $start = hrtime(true);
    $work();

    return (hrtime(true) - $start) / 1e6;
}
