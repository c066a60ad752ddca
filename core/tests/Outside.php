<?php

declare(strict_types=1);

namespace Plinth\Core\Tests;

/** Asks a general-purpose library for its answer to the same question: in Debian's Python, or in Node of npm's. */
final class Outside
{
    /**
     * @param array<mixed> $question given to the script as JSON on standard input
     *
     * @return array<mixed> its JSON answer
     */
    public static function ask(string $script, array $question): array
    {
        $runs = str_ends_with($script, '.mjs') ? 'node' : '/usr/bin/python3';
        $process = proc_open([$runs, __DIR__.'/outside/'.$script], [['pipe', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes);
        if (false === $process) {
            throw new \RuntimeException("$runs does not start.");
        }
        fwrite($pipes[0], json_encode($question, \JSON_THROW_ON_ERROR));
        fclose($pipes[0]);
        $answer = (string) stream_get_contents($pipes[1]);
        $errors = (string) stream_get_contents($pipes[2]);
        if (0 !== proc_close($process)) {
            throw new \RuntimeException("$script failed: $errors");
        }
        $data = json_decode($answer, true, 512, \JSON_THROW_ON_ERROR);

        return \is_array($data) ? $data : throw new \RuntimeException("$script gave no list.");
    }
}
