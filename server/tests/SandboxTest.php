<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Server\Sandbox\SandboxState;
use Plinth\Server\Source\Reading\Format;
use Plinth\Server\Source\Reading\PictureFailure;
use Plinth\Server\Source\Reading\PictureTool;

/** Each sentence that docs/security.md says of the sandbox, tried from inside it. */
final class SandboxTest extends TestCase
{
    private PictureTool $tool;
    private string $folder;

    protected function setUp(): void
    {
        $this->tool = Files::tool();
        $this->folder = sys_get_temp_dir().'/sandbox-'.bin2hex(random_bytes(6));
        mkdir($this->folder);
        file_put_contents($this->folder.'/mine', 'what it may read');
        file_put_contents($this->folder.'/beside', 'what it may not');
        mkdir($this->folder.'/out');
    }

    protected function tearDown(): void
    {
        exec('rm -rf '.escapeshellarg($this->folder));
    }

    public function testThereIsNoNetwork(): void
    {
        $server = stream_socket_server('tcp://127.0.0.1:0');
        self::assertIsResource($server);
        [, $port] = explode(':', (string) stream_socket_get_name($server, false));
        self::assertSame("no\n", $this->shell("(exec 3<>/dev/tcp/127.0.0.1/$port) 2>/dev/null && echo yes || echo no"));
        stream_set_blocking($server, false);
        self::assertFalse(@stream_socket_accept($server, 0.0), 'Nobody called.');
    }

    public function testOnlyWhatIsNamedCanBeReadAndNothingOfItWritten(): void
    {
        self::assertSame('what it may read', $this->shell("cat '$this->folder/mine'", [$this->folder.'/mine']));
        foreach ([
            $this->folder.'/beside',
            \dirname(__DIR__, 2).'/composer.json',
            '/etc/passwd',
            '/etc/hostname',
            '/proc/1/environ',
            (string) getenv('PLINTH_VAR').'/secret',
            (string) getenv('PLINTH_FILES').'/sources',
        ] as $path) {
            self::assertSame("no\n", $this->shell("[ -e '$path' ] && echo yes || echo no", [$this->folder.'/mine']), $path);
        }
        self::assertSame(
            "no\n",
            $this->shell("(echo x > '$this->folder/mine') 2>/dev/null && echo yes || echo no", [$this->folder.'/mine']),
        );
        self::assertSame("no\n", $this->shell('(echo x > /usr/x) 2>/dev/null && echo yes || echo no'));
        self::assertSame('what it may read', file_get_contents($this->folder.'/mine'));
    }

    public function testItWritesToOneFolderAndToATemporaryOneThatIsEmptyAndItsOwn(): void
    {
        self::assertSame('', $this->shell('ls -A /tmp'));
        $this->shell("echo made > '$this->folder/out/made'; echo gone > /tmp/gone", writes: $this->folder.'/out');
        self::assertSame("made\n", file_get_contents($this->folder.'/out/made'));
        self::assertFileDoesNotExist('/tmp/gone');
        self::assertSame("full\n", $this->shell('head -c 200000000 /dev/zero > /tmp/large 2>/dev/null && echo room || echo full'));
    }

    public function testNothingIsInTheEnvironmentButWhatIsGiven(): void
    {
        putenv('PLINTH_SECRET_OF_THE_SERVER=1');
        preg_match_all('/^(\w+)=/m', $this->shell('env'), $names);
        self::assertSame(
            [],
            array_diff($names[1], [
                'PATH', 'HOME', 'TMPDIR', 'LC_ALL', 'MAGICK_CONFIGURE_PATH', 'VIPS_CONCURRENCY', 'MALLOC_ARENA_MAX',
                'OMP_THREAD_LIMIT', 'PWD', 'OLDPWD', 'SHLVL', '_',
            ]),
        );
    }

    public function testMemoryFilesProcessesAndProcessorTimeAreLimited(): void
    {
        $limits = $this->shell('ulimit -a');
        foreach ([
            '/virtual memory .* 3906250$/m',
            '/file size .* \d+$/m',
            '/max user processes .* 256$/m',
            '/open files .* 256$/m',
            '/cpu time .* 41$/m',
            '/core file size .* 0$/m',
        ] as $limit) {
            self::assertMatchesRegularExpression($limit, $limits);
        }
        // No privilege to raise any of them, and no process of others to be seen or signalled.
        self::assertStringContainsString('no', $this->shell('(ulimit -n 100000) 2>/dev/null && echo yes || echo no'));
        self::assertSame("no\n", $this->shell('kill -0 '.getmypid().' 2>/dev/null && echo yes || echo no'));
    }

    public function testMoreOutputThanCanBeMeantIsCutOff(): void
    {
        $this->expectExceptionMessage('holds more than can be looked at');
        $this->tool->run(['cat', '/dev/zero'], 30.0);
    }

    /** Killed without warning, a worker leaves no child behind. */
    public function testAChildEndsWithItsWorker(): void
    {
        $mark = '31.'.random_int(100_000, 999_999);
        $code = 'require '.var_export(
            \dirname(__DIR__, 2).'/vendor/autoload.php',
            true,
        ).'; \\Plinth\\Server\\Tests\\Files::tool()->run(["sleep", "'.$mark.'"], 30.0);';
        $worker = proc_open([\PHP_BINARY, '-d', 'pcov.enabled=0', '-r', $code], [], $pipes);
        self::assertIsResource($worker);
        for ($i = 0; $i < 100 && !self::isAsleep($mark); ++$i) {
            usleep(50_000);
        }
        self::assertTrue(self::isAsleep($mark), 'It was started.');
        proc_terminate($worker, 9);
        proc_close($worker);
        for ($i = 0; $i < 60 && self::isAsleep($mark); ++$i) {
            usleep(50_000);
        }
        self::assertFalse(self::isAsleep($mark));
    }

    /** A child that was ended from outside is tried again; one that crashed on its file is not. */
    public function testWhoEndedAChildIsKnown(): void
    {
        foreach (['kill -KILL $$' => true, 'kill -TERM $$' => true, 'kill -SEGV $$' => false, 'exit 3' => false] as $end => $again) {
            try {
                $this->shell($end);
                self::fail('It ended well.');
            } catch (PictureFailure $e) {
                self::assertSame($again, $e->mayTryAgain, $end);
            }
        }
    }

    /** Where the kernel allows no sandbox, nothing is opened until somebody says so by name. */
    public function testWithoutASandboxNothingIsOpened(): void
    {
        try {
            Files::tool(SandboxState::Missing)->run(['true'], 5.0);
            self::fail('It was run.');
        } catch (PictureFailure $e) {
            self::assertStringContainsString('no sandbox', $e->getMessage());
        }
        self::assertSame("x\n", Files::tool(SandboxState::Off)->run(['echo', 'x'], 5.0));
    }

    /** A file is opened as what its content was found to be, or not at all. */
    public function testALoaderIsPinnedToTheKindThatWasFound(): void
    {
        $files = new Files();
        foreach ($files->kinds() as $kind => [$path, $format]) {
            self::assertSame(Files::WIDTH, $this->tool->describe($path, $format)['width'], $kind);
            foreach (Format::cases() as $other) {
                if ($other->loader() !== $format->loader()) {
                    try {
                        $this->tool->describe($path, $other);
                        self::fail("$kind was opened as $other->value.");
                    } catch (PictureFailure) {
                    }
                }
            }
        }
    }

    /** One place starts children, and it starts them in the sandbox. */
    public function testNoOtherCodeStartsAProcess(): void
    {
        $root = \dirname(__DIR__, 2);
        foreach (['server/src', 'core/src'] as $folder) {
            foreach (new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator("$root/$folder", \FilesystemIterator::SKIP_DOTS),
            ) as $file) {
                self::assertInstanceOf(\SplFileInfo::class, $file);
                if ('PictureTool.php' !== $file->getFilename()) {
                    self::assertDoesNotMatchRegularExpression(
                        '/\b(new Process|Process::fromShell|proc_open|popen|shell_exec|passthru|pcntl_fork)\b|[^>:\w](exec|system)\(/',
                        (string) file_get_contents($file->getPathname()),
                        $file->getPathname(),
                    );
                }
            }
        }
    }

    /** @phpstan-impure */
    private static function isAsleep(string $mark): bool
    {
        return '' !== trim((string) shell_exec('pgrep -f "^sleep '.$mark.'"'));
    }

    /** @param list<string> $reads */
    private function shell(string $command, array $reads = [], ?string $writes = null): string
    {
        return $this->tool->run(['bash', '-c', $command], 20.0, $reads, $writes);
    }
}
