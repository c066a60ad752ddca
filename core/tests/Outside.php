<?php

declare(strict_types=1);

namespace Plinth\Core\Tests;

/** Asks a general-purpose library in Debian's Python for its answer to the same question. */
final class Outside
{
    /**
     * @param array<mixed> $question given to the script as JSON on standard input
     *
     * @return array<mixed> its JSON answer
     */
    public static function ask(string $script, array $question): array
    {
        $process = proc_open(['/usr/bin/python3', __DIR__.'/outside/'.$script], [['pipe', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes);
        if (false === $process) {
            throw new \RuntimeException('python3 does not start.');
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
