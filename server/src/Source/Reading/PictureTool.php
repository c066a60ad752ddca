<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Reading;

use Plinth\Server\Sandbox\Sandbox;
use Symfony\Component\Process\Exception\ProcessTimedOutException;
use Symfony\Component\Process\Process;

/** Runs the picture commands as child processes in the sandbox. The only place where a child is started; no picture is decoded in PHP. */
final readonly class PictureTool
{
    /** lenses that there are; 0 is how a camera says that it does not know */
    private const LENS_MM = [8.0, 600.0];
    private const LOOK_MICROSECONDS = 20_000;
    /** Commands that may wait for those before. */
    private const AHEAD = 8;
    /** bytes on standard output */
    private const MOST_OUTPUT = 100_000_000;
    /** Signals by number, as POSIX has them: PHP knows their names only where a process may be forked. */
    private const KILL = 9;
    private const STAND_STILL = 19;
    /** ms until a process that was told to stand still is thought to never do so */
    private const LOOKS = 500;
    private const FROM_OUTSIDE = [1, 2, self::KILL, 15];
    /** Few threads: the limit of memory counts every thread's stack and arena. */
    private const ENVIRONMENT = ['VIPS_CONCURRENCY' => '2', 'MALLOC_ARENA_MAX' => '2', 'OMP_THREAD_LIMIT' => '1'];

    public function __construct(private Sandbox $sandbox)
    {
    }

    /**
     * @param non-empty-list<string> $command
     * @param list<string> $reads files that it may read
     * @param string|null $writes folder that it may read and write
     * @param callable(): void|null $onLook called many times a second; ends the child by throwing
     * @param bool $trusts whether loaders may be used that the tool's own authors call untrusted: for what came from us, and for kinds of
     *                     file that have no other
     *
     * @return string what it printed
     *
     * @throws PictureFailure with the tool's own reason
     */
    public function run(
        array $command,
        float $seconds,
        array $reads = [],
        ?string $writes = null,
        ?callable $onLook = null,
        bool $trusts = true,
    ): string {
        return $this->runTogether([$command], $seconds, $reads, $writes, $onLook, $trusts)[0];
    }

    /**
     * Runs commands side by side; when one fails or is stopped, all are ended.
     *
     * @param iterable<non-empty-list<string>> $commands taken one by one while those before run: what makes them may take its time
     * @param list<string> $reads
     * @param callable(int): void|null $onLook called with how many have ended
     * @param int $atOnce of them run
     *
     * @return list<string> what they printed
     *
     * @throws PictureFailure
     */
    public function runTogether(
        iterable $commands,
        float $seconds,
        array $reads = [],
        ?string $writes = null,
        ?callable $onLook = null,
        bool $trusts = true,
        int $atOnce = \PHP_INT_MAX,
    ): array {
        if (!$this->sandbox->isOpen()) {
            throw PictureFailure::noSandbox();
        }
        $environment = self::ENVIRONMENT + ($trusts ? [] : ['VIPS_BLOCK_UNTRUSTED' => '1']);
        $coming = (static fn (): \Generator => yield from $commands)();
        $printed = 0;
        $count = static function (string $type, string $part) use (&$printed): void {
            $printed += \strlen($part);
        };
        /** @var list<Process> $processes */
        [$processes, $started, $running] = [[], 0, []];
        try {
            while ($coming->valid() || $started < \count($processes) || [] !== $running) {
                for (; \count($running) < $atOnce && $started < \count($processes); ++$started) {
                    $running[] = $processes[$started];
                    $processes[$started]->start($count);
                }
                if (null !== $onLook) {
                    $onLook($started - \count($running));
                }
                if ($coming->valid() && \count($processes) - $started < self::AHEAD) {
                    $command = $this->sandbox->command($coming->current(), $reads, $writes, $environment, $seconds);
                    $processes[] = new Process($command, '/', timeout: $seconds);
                    $coming->next();
                } else {
                    usleep(self::LOOK_MICROSECONDS);
                }
                $running = array_values(array_filter($running, self::goesOn(...)));
                if ($printed > self::MOST_OUTPUT) {
                    throw PictureFailure::unsafe(
                        'This file holds more than can be looked at. Leave out what is not needed and save it again.',
                    );
                }
            }
        } catch (ProcessTimedOutException) {
            throw PictureFailure::tooLong($seconds);
        } finally {
            array_map(self::end(...), $processes);
        }

        return array_map(static fn (Process $p): string => $p->getOutput(), $processes);
    }

    /** @throws PictureFailure where it has ended without doing what it should */
    private static function goesOn(Process $process): bool
    {
        $process->checkTimeout();
        if (!$process->isRunning() && !$process->isSuccessful()) {
            throw PictureFailure::of($process->getErrorOutput(), self::wasKilled($process));
        }

        return $process->isRunning();
    }

    /**
     * Ends what still runs, with the child that the sandbox works in: that one says only some time after it has begun that it ends with its
     * parent, and would wait for it for ever.
     */
    private static function end(Process $process): void
    {
        $pid = $process->getPid();
        if (null !== $pid) {
            posix_kill($pid, self::STAND_STILL);
            // What it is in the middle of, it may still finish: a child that is being born shows only then.
            for ($look = 0; $look < self::LOOKS && 1 === preg_match('/\) [^TZX]/', (string) @file_get_contents("/proc/$pid/stat")); ++$look) {
                usleep(1000);
            }
            foreach (explode(' ', trim((string) @file_get_contents("/proc/$pid/task/$pid/children"))) as $child) {
                if ('' !== $child) {
                    posix_kill((int) $child, self::KILL);
                }
            }
        }
        $process->stop(0.0, self::KILL);
    }

    /**
     * Size, kind and tags, from the head of the file.
     *
     * @param string $suffix `[page=2]` for another page, `[scale=1000]` for a drawing
     * @param callable(): void|null $onLook
     *
     * @return array{width: int, height: int, pages: int, resolution: float|null}
     *
     * @throws PictureFailure also where the tool would open the file as another kind than its content was found to be
     */
    public function describe(string $path, Format $format, string $suffix = '', ?callable $onLook = null): array
    {
        $text = $this->run(['vipsheader', '-a', $path.$suffix], 20.0, [$path], onLook: $onLook, trusts: !$format->isTrusted());
        $field = static fn (string $name): ?string => 1 === preg_match('/^'.preg_quote($name, '/').': (.*)$/m', $text, $m) ? $m[1] : null;
        if ($format->loader() !== $field('vips-loader')) {
            throw PictureFailure::of('');
        }
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

    /** What a camera has written into a picture of its lens: its focal length on a frame of 36 by 24 mm. */
    public function lensMm(string $path): ?float
    {
        $text = $this->run(['vipsheader', '-a', $path], 20.0, [$path]);
        $mm = 1 === preg_match('/^exif-ifd2-FocalLengthIn35mmFilm: (\d+)/m', $text, $m) ? (float) $m[1] : 0.0;

        return $mm >= self::LENS_MM[0] && $mm <= self::LENS_MM[1] ? $mm : null;
    }

    /** Ended from outside: by the machine running out of memory, or by hand; a crash of its own is the file's fault. */
    private static function wasKilled(Process $process): bool
    {
        $signal = $process->hasBeenSignaled() ? $process->getTermSignal() : (int) $process->getExitCode() - 128;

        return \in_array($signal, self::FROM_OUTSIDE, true);
    }
}
