<?php

declare(strict_types=1);

namespace Plinth\Core\Tests;

use PHPUnit\Framework\TestCase;

/** The core stands alone: no class from outside Plinth\Core, PHP itself and exact numbers. */
final class DependenciesTest extends TestCase
{
    public function testCoreNamesOnlyItselfAndPhp(): void
    {
        $files = new \RegexIterator(new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator(__DIR__.'/../src')), '/\.php$/');
        $count = 0;
        foreach ($files as $file) {
            self::assertInstanceOf(\SplFileInfo::class, $file);
            foreach (\PhpToken::tokenize((string) file_get_contents($file->getPathname())) as $token) {
                if (!$token->is([\T_NAME_FULLY_QUALIFIED, \T_NAME_QUALIFIED])) {
                    continue;
                }
                $name = ltrim($token->text, '\\');
                ++$count;
                $isOurs = str_starts_with($name, 'Plinth\\Core') || str_starts_with($name, 'Brick\\Math');
                $isPhp = !str_contains($name, '\\') && (\function_exists($name) || \defined($name) || class_exists($name) || interface_exists($name));
                self::assertTrue($isOurs || $isPhp, "{$file->getFilename()} names $name.");
            }
        }
        self::assertGreaterThan(100, $count);
    }
}
