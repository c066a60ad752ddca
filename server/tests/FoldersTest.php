<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;

/** What the folders of the server know of each other, read from their code. */
final class FoldersTest extends TestCase
{
    public function testNoFolderIsKnownByOneThatItKnowsItself(): void
    {
        $knows = self::knows();
        self::assertArrayHasKey('Plan', $knows);
        while ([] !== $knows) {
            $free = array_filter($knows, static fn (array $others): bool => [] === array_intersect($others, array_keys($knows)));
            self::assertNotSame(
                [],
                $free,
                'These know each other in a ring: '.json_encode(
                    array_map(static fn (array $others): array => array_values(array_intersect($others, array_keys($knows))), $knows),
                ),
            );
            $knows = array_diff_key($knows, $free);
        }
    }

    public function testTheKernelOfChangesKnowsNoCapability(): void
    {
        self::assertSame([], array_diff(self::knows()['Change'] ?? ['nothing'], ['Account', 'Http']));
    }

    public function testEveryKindOfRowIsRegisteredAndInTheContract(): void
    {
        $root = \dirname(__DIR__).'/src';
        $rows = [];
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($root, \FilesystemIterator::SKIP_DOTS)) as $file) {
            if (
                $file instanceof \SplFileInfo
                && 1 === preg_match("/^#\\[Kind\\('(\\w+)'/m", (string) file_get_contents($file->getPathname()), $m)
            ) {
                $rows[] = $m[1];
            }
        }
        $registered = array_keys(Registered::kinds()->classes);
        self::assertEqualsCanonicalizing($rows, $registered);
        self::assertEqualsCanonicalizing(Contract::enum('RowType'), $registered);
    }

    /** @return array<string, list<string>> folder → folders whose classes it names */
    private static function knows(): array
    {
        $root = \dirname(__DIR__).'/src';
        $knows = [];
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($root, \FilesystemIterator::SKIP_DOTS)) as $file) {
            if (!$file instanceof \SplFileInfo || 'php' !== $file->getExtension()) {
                continue;
            }
            $path = substr($file->getPathname(), \strlen($root) + 1);
            $folder = str_contains($path, '/') ? explode('/', $path)[0] : '';
            $knows[$folder] ??= [];
            preg_match_all('/Plinth\\\\Server\\\\(\w+)\\\\/', (string) file_get_contents($file->getPathname()), $m);
            $knows[$folder] = array_values(array_diff(array_unique([...$knows[$folder], ...$m[1]]), [$folder]));
        }

        return $knows;
    }
}
