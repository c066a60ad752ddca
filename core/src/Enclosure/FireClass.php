<?php

declare(strict_types=1);

namespace Plinth\Core\Enclosure;

/** A class of fire resistance, as somebody types it: free text, of which case, spaces and dashes do not count. */
final class FireClass
{
    /** The same for every spelling of one class. */
    public static function key(string $typed): string
    {
        $normal = \Normalizer::normalize($typed, \Normalizer::NFKC);

        return mb_strtolower((string) preg_replace('/[\s\p{Z}\p{Pd}_\p{Cf}]+/u', '', \is_string($normal) ? $normal : $typed));
    }

    /**
     * What each class is called: as it was spelled first.
     *
     * @param list<string> $typed
     *
     * @return array<string, string> by key
     */
    public static function names(array $typed): array
    {
        $names = [];
        foreach ($typed as $name) {
            $names[self::key($name)] ??= trim($name);
        }

        return array_filter($names, static fn (string $key): bool => '' !== $key, \ARRAY_FILTER_USE_KEY);
    }
}
