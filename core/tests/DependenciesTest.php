<?php

declare(strict_types=1);

namespace Plinth\Core\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Fault\Fault;

/**
 * The core stands alone, and is made of modules that depend on each other in one direction. A module is a folder of its namespace; what
 * lies in its `Internal` is nobody else's.
 */
final class DependenciesTest extends TestCase
{
    /** These hold modules and are none themselves. */
    private const OF_MODULES = ['Plan', 'Ink', 'Exchange'];

    public function testCoreNamesOnlyItselfPhpAndExactNumbers(): void
    {
        $count = 0;
        foreach (self::named() as [$file, $name]) {
            ++$count;
            $isOurs = str_starts_with($name, 'Plinth\\Core') || str_starts_with($name, 'Brick\\Math');
            $isClass = class_exists($name) || interface_exists($name);
            $isPhp = $isClass
                ? (new \ReflectionClass($name))->isInternal()
                : !str_contains($name, '\\') && (\function_exists($name) || \defined($name));
            self::assertTrue($isOurs || $isPhp, "$file names $name.");
        }
        self::assertGreaterThan(100, $count);
    }

    public function testWhatIsInternalIsNamedByItsOwnModuleAlone(): void
    {
        foreach (self::named() as [$file, $name, $module]) {
            if (str_contains($name, '\\Internal\\')) {
                self::assertSame(self::moduleOf($name), $module, "$file names $name, which is internal.");
            }
        }
    }

    /** Prints what each module depends on, from those that depend on nothing to those that nothing depends on. */
    public function testModulesDependInOneDirection(): void
    {
        $needs = [];
        foreach (self::named() as [, $name, $module]) {
            $needs[$module] ??= [];
            if (str_starts_with($name, 'Plinth\\Core\\') && self::moduleOf($name) !== $module) {
                $needs[$module][self::moduleOf($name)] = true;
            }
        }
        ksort($needs);
        $table = "Modules of the core, and what they depend on\n";
        $left = $needs;
        while ([] !== $left) {
            $free = array_filter($left, static fn (array $of): bool => [] === array_intersect_key($of, $left));
            self::assertNotSame([], $free, 'These depend on each other in a ring: '.implode(', ', array_keys($left)));
            foreach ($free as $module => $of) {
                ksort($of);
                $table .= \sprintf("  %-22s %s\n", $module, [] === $of ? '–' : implode(', ', array_keys($of)));
            }
            $left = array_diff_key($left, $free);
        }
        fwrite(\STDERR, "\n$table");
        self::assertGreaterThan(12, \count($needs));
    }

    public function testNoTwoClassesHaveOneName(): void
    {
        $files = [];
        foreach (self::files() as $file) {
            $files[$file->getFilename()][] = $file->getPathname();
        }
        self::assertSame([], array_filter($files, static fn (array $of): bool => \count($of) > 1));
    }

    public function testWhateverTheCoreThrowsSaysWhyAndWhere(): void
    {
        $count = 0;
        foreach (self::files() as $file) {
            if (
                str_contains($file->getPath(), '/Exception')
                && 1 === preg_match('/^namespace ([^;]+);/m', (string) file_get_contents($file->getPathname()), $match)
            ) {
                ++$count;
                self::assertTrue(is_a($match[1].'\\'.$file->getBasename('.php'), Fault::class, true), $file->getFilename());
            }
        }
        self::assertGreaterThan(10, $count);
    }

    /** @return \Generator<int, array{string, string, string}> file, name that stands in it, and the module of the file */
    private static function named(): \Generator
    {
        foreach (self::files() as $file) {
            $code = (string) file_get_contents($file->getPathname());
            self::assertSame(1, preg_match('/^namespace (Plinth\\\\Core\\\\[^;]+);/m', $code, $match));
            foreach (\PhpToken::tokenize(
                '<?php '.substr($code, 1 + (int) strpos($code, ';', (int) strpos($code, "\nnamespace "))),
            ) as $token) {
                if ($token->is([\T_NAME_FULLY_QUALIFIED, \T_NAME_QUALIFIED])) {
                    yield [$file->getFilename(), ltrim($token->text, '\\'), self::moduleOf($match[1].'\\Any')];
                }
            }
        }
    }

    private static function moduleOf(string $class): string
    {
        $parts = \array_slice(explode('\\', $class), 2, -1);

        return \in_array($parts[0] ?? '', self::OF_MODULES, true) ? implode('\\', \array_slice($parts, 0, 2)) : $parts[0] ?? '';
    }

    /** @return iterable<\SplFileInfo> */
    private static function files(): iterable
    {
        foreach (new \RegexIterator(
            new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator(__DIR__.'/../src')),
            '/\.php$/',
        ) as $file) {
            self::assertInstanceOf(\SplFileInfo::class, $file);
            yield $file;
        }
    }
}
