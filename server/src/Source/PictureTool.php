<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Symfony\Component\Process\Exception\ProcessTimedOutException;
use Symfony\Component\Process\Process;

/** Runs the picture commands as child processes with limits of time and memory. No picture is decoded in PHP. */
final readonly class PictureTool
{
    private const MEMORY_BYTES = 4_000_000_000;

    /**
     * @param list<string> $command
     * @param callable(): bool|null $mayGoOn asked several times a second; false ends the child
     *
     * @throws PictureFailure with the tool's own reason
     */
    public function run(array $command, float $seconds, ?callable $mayGoOn = null): string
    {
        // One thread: the address space limit counts every thread's stack and arena.
        $process = new Process(['prlimit', '--as='.self::MEMORY_BYTES, '--core=0', '--', ...$command], null, ['VIPS_CONCURRENCY' => '2', 'MALLOC_ARENA_MAX' => '2', 'LC_ALL' => 'C.UTF-8'], null, $seconds);
        $process->start();
        try {
            while ($process->isRunning()) {
                $process->checkTimeout();
                if (null !== $mayGoOn && !$mayGoOn()) {
                    throw PictureFailure::stopped();
                }
                usleep(60_000);
            }
        } catch (ProcessTimedOutException) {
            throw PictureFailure::tooLong($seconds);
        } finally {
            $process->stop(0.0, 9);
        }
        if (!$process->isSuccessful()) {
            throw PictureFailure::of($process->getErrorOutput());
        }

        return $process->getOutput();
    }

    /**
     * Size, kind and tags, from the head of the file.
     *
     * @return array{width: int, height: int, bands: int, resolution: float|null}
     */
    public function describe(string $path): array
    {
        $text = $this->run(['vipsheader', '-a', $path], 20.0);
        $field = static fn (string $name): ?string => 1 === preg_match('/^'.preg_quote($name, '/').': (.*)$/m', $text, $m) ? $m[1] : null;
        $width = (int) $field('width');
        $height = (int) $field('height');
        $orientation = (int) ($field('orientation') ?? 1);
        $xres = (float) ($field('xres') ?? 0.0);

        return [
            'width' => $orientation >= 5 ? $height : $width,
            'height' => $orientation >= 5 ? $width : $height,
            'bands' => (int) $field('bands'),
            // The tool gives pixels per millimetre, and 1 where the file says nothing.
            'resolution' => $xres > 0.0 && 1.0 !== $xres ? $xres * 25.4 : null,
        ];
    }
}
