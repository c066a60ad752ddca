<?php

declare(strict_types=1);

namespace Plinth\Server\Files;

/**
 * Where files lie that all nodes share: single ones, and bundles, folders that never change once they are there. Keys are paths of
 * letters, digits, dots and dashes. What is put is there whole or not at all, and can be read here as a file or folder of this machine.
 */
interface Store
{
    /** Takes a copy of a file; one that is there under the key already stays. */
    public function put(string $key, string $path): void;

    /** @return string|null where the file can be read; null where there is none */
    public function file(string $key): ?string;

    /** Takes a finished folder over: it is moved. One that is there under the key already stays. */
    public function putBundle(string $key, string $folder): void;

    /** @return string|null where the bundle lies; null where there is none, or where what there is is damaged */
    public function bundle(string $key): ?string;

    /** Removes a file, a bundle, or all that lies below. */
    public function remove(string $key): void;

    /** @return list<string> names of what lies directly below a key */
    public function below(string $key): array;

    /** @return int|null s since the file was put; null where there is none */
    public function age(string $key): ?int;

    /** A folder of this machine, on the disk where bundles are kept, for work that is under way. */
    public function workshop(): string;
}
