<?php

declare(strict_types=1);

namespace Plinth\Server\Sandbox;

/**
 * What stands between a child process and everything else: namespaces of its own (bubblewrap) and limits of the kernel
 * (prlimit). Inside there is no network, no process but its own, no environment but what is given, the system's programs and
 * the files named, read-only, one folder to write to if one is named, and an empty temporary folder.
 */
final readonly class Sandbox
{
    private const MEMORY_BYTES = 4_000_000_000;
    private const FILE_BYTES = 4_000_000_000;
    private const TEMPORARY_BYTES = 64_000_000;
    private const PROCESSES = 256;
    private const OPEN_FILES = 256;
    /** What programs need of the system beside /usr: the loader's list, which library stands for which, and fonts. */
    private const SYSTEM = ['/etc/ld.so.cache', '/etc/alternatives', '/etc/fonts', '/var/cache/fontconfig'];

    public function __construct(private SandboxState $sandbox, private string $projectDir)
    {
    }

    /** Whether children may be started at all: not where the kernel allows no sandbox and nobody has said to go on without. */
    public function isOpen(): bool
    {
        return SandboxState::Missing !== $this->sandbox;
    }

    /**
     * @param non-empty-list<string> $command
     * @param list<string> $reads files and folders that it may read
     * @param string|null $writes folder that it may write to
     * @param array<string, string> $environment all there is
     *
     * @return list<string>
     */
    public function command(array $command, array $reads, ?string $writes, array $environment, float $seconds): array
    {
        // What does not fit into memory is put beside what is made, not into the small temporary folder.
        $environment += [
            'PATH' => '/usr/bin',
            'HOME' => '/tmp',
            'TMPDIR' => $writes ?? '/tmp',
            'LC_ALL' => 'C.UTF-8',
            'MAGICK_CONFIGURE_PATH' => $this->coders(),
        ];
        $limited = [
            // Processor time: two threads may each use all of the time that is allowed.
            'prlimit', '--as='.self::MEMORY_BYTES, '--fsize='.self::FILE_BYTES, '--cpu='.(2 * (int) ceil($seconds) + 1), '--nproc='.self::PROCESSES, '--nofile='.self::OPEN_FILES, '--core=0', '--', ...$command,
        ];
        if (SandboxState::On !== $this->sandbox) {
            return ['env', '-i', ...self::assignments($environment), ...$limited];
        }
        $bind = static fn (string $how, string $path): array => [$how, $path, $path];
        $set = [];
        foreach ($environment as $name => $value) {
            array_push($set, '--setenv', $name, $value);
        }

        return [
            'bwrap', '--unshare-all', '--die-with-parent', '--new-session', '--cap-drop', 'ALL', '--clearenv', ...$set,
            '--ro-bind', '/usr', '/usr', '--symlink', 'usr/bin', '/bin', '--symlink', 'usr/lib', '/lib', '--symlink', 'usr/lib64', '/lib64',
            ...array_merge(...array_map(static fn (string $p): array => $bind('--ro-bind-try', $p), self::SYSTEM)),
            '--dev', '/dev', '--size', (string) self::TEMPORARY_BYTES, '--tmpfs', '/tmp',
            ...array_merge(...array_map(static fn (string $p): array => $bind('--ro-bind', $p), [$this->coders(), ...$reads])),
            ...(null === $writes ? [] : $bind('--bind', $writes)), '--chdir', '/tmp', '--', ...$limited,
        ];
    }

    private function coders(): string
    {
        return $this->projectDir.'/ops/picture-coders';
    }

    /**
     * @param array<string, string> $environment
     *
     * @return list<string>
     */
    private static function assignments(array $environment): array
    {
        return array_map(static fn (string $name, string $value): string => "$name=$value", array_keys($environment), $environment);
    }
}
