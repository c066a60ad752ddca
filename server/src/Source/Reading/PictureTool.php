<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Reading;

use Symfony\Component\Process\Exception\ProcessTimedOutException;
use Symfony\Component\Process\Process;

/** Runs the picture commands as child processes with limits of time and memory. No picture is decoded in PHP. */
final readonly class PictureTool
{
    private const MEMORY_BYTES = 4_000_000_000;
    private const LOOK_MICROSECONDS = 20_000;

    /**
     * @param list<string> $command
     * @param callable(): bool|null $mayGoOn asked several times a second; false ends the child
     * @param array<string, string> $environment
     *
     * @throws PictureFailure with the tool's own reason
     */
    public function run(array $command, float $seconds, ?callable $mayGoOn = null, ?string $input = null, array $environment = []): string
    {
        return $this->runTogether([$command], $seconds, $mayGoOn, $input, $environment)[0];
    }

    /**
     * Runs commands side by side; when one fails or is stopped, all are ended.
     *
     * @param list<list<string>> $commands
     * @param callable(): bool|null $mayGoOn
     * @param array<string, string> $environment
     *
     * @return list<string> what they printed
     *
     * @throws PictureFailure
     */
    public function runTogether(array $commands, float $seconds, ?callable $mayGoOn = null, ?string $input = null, array $environment = []): array
    {
        $processes = array_map(static fn (array $command): Process => new Process(
            ['prlimit', '--as='.self::MEMORY_BYTES, '--core=0', '--', ...$command],
            null,
            // Few threads: the address space limit counts every thread's stack and arena.
            ['VIPS_CONCURRENCY' => '2', 'MALLOC_ARENA_MAX' => '2', 'LC_ALL' => 'C.UTF-8'] + $environment,
            $input,
            $seconds,
        ), $commands);
        try {
            foreach ($processes as $process) {
                $process->start();
            }
            while ([] !== array_filter($processes, static fn (Process $p): bool => $p->isRunning())) {
                foreach ($processes as $process) {
                    $process->checkTimeout();
                    if (!$process->isRunning() && !$process->isSuccessful()) {
                        throw PictureFailure::of($process->getErrorOutput());
                    }
                }
                if (null !== $mayGoOn && !$mayGoOn()) {
                    throw PictureFailure::stopped();
                }
                usleep(self::LOOK_MICROSECONDS);
            }
        } catch (ProcessTimedOutException) {
            throw PictureFailure::tooLong($seconds);
        } finally {
            foreach ($processes as $process) {
                $process->stop(0.0, 9);
            }
        }
        foreach ($processes as $process) {
            if (!$process->isSuccessful()) {
                throw PictureFailure::of($process->getErrorOutput());
            }
        }

        return array_map(static fn (Process $p): string => $p->getOutput(), $processes);
    }

    /**
     * Size, kind and tags, from the head of the file.
     *
     * @param string $path a file, with `[page=2]` behind it for another page, or `stdin`
     *
     * @return array{width: int, height: int, pages: int, resolution: float|null}
     */
    public function describe(string $path, ?string $input = null): array
    {
        $text = $this->run(['vipsheader', '-a', $path], 20.0, null, $input);
        $field = static fn (string $name): ?string => 1 === preg_match('/^'.preg_quote($name, '/').': (.*)$/m', $text, $m) ? $m[1] : null;
        $width = (int) $field('width');
        $height = (int) $field('height');
        $orientation = (int) ($field('orientation') ?? 1);
        $xres = (float) ($field('xres') ?? 0.0);

        return [
            'width' => $orientation >= 5 ? $height : $width,
            'height' => $orientation >= 5 ? $width : $height,
            'pages' => max(1, (int) ($field('n-pages') ?? 1)),
            // The tool gives pixels per millimetre, and 1 where the file says nothing.
            'resolution' => $xres > 0.0 && 1.0 !== $xres ? $xres * 25.4 : null,
        ];
    }
}
