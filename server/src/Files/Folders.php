<?php

declare(strict_types=1);

namespace Plinth\Server\Files;

/** Folders of this machine. */
final class Folders
{
    /** @throws CannotStore */
    public static function make(string $folder): void
    {
        if (!is_dir($folder) && !@mkdir($folder, 0o700, true) && !is_dir($folder)) {
            throw CannotStore::file(basename($folder));
        }
    }

    /** Takes a file or folder away; what is being read goes on being there for its reader. */
    public static function remove(string $path): void
    {
        if (is_file($path) || is_link($path)) {
            @unlink($path);

            return;
        }
        foreach (self::all($path) as $name) {
            self::remove("$path/$name");
        }
        @rmdir($path);
    }

    /** @return list<string> what lies in a folder, but for what is only half there */
    public static function names(string $folder): array
    {
        return array_values(array_filter(self::all($folder), static fn (string $name): bool => !str_contains($name, '.part-')));
    }

    /** @throws \LogicException where it is none: keys are made by us alone */
    public static function key(string $key): string
    {
        return 1 === preg_match(
            '#^[\w.-]+(/[\w.-]+)*$#D',
            $key,
        ) && !str_contains($key, '..') ? $key : throw new \LogicException("“{$key}” is no key of a file.");
    }

    /** @return list<string> */
    private static function all(string $folder): array
    {
        $names = @scandir($folder);

        return false === $names ? [] : array_values(array_diff($names, ['.', '..']));
    }
}
