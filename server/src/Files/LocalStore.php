<?php

declare(strict_types=1);

namespace Plinth\Server\Files;

/** A folder of this machine, or one that several machines share and that renames atomically. */
final readonly class LocalStore implements Store
{
    public function __construct(private string $root)
    {
    }

    public function put(string $key, string $path): void
    {
        $to = $this->at($key);
        if (is_file($to)) {
            return;
        }
        Folders::make(\dirname($to));
        $part = $to.'.part-'.bin2hex(random_bytes(6));
        // On the same disk a second name costs nothing.
        if (!@link($path, $part) && !@copy($path, $part)) {
            @unlink($part);
            throw CannotStore::file($key);
        }
        if (!@rename($part, $to)) {
            @unlink($part);
            throw CannotStore::file($key);
        }
        @touch($to);
    }

    public function file(string $key): ?string
    {
        return is_file($this->at($key)) ? $this->at($key) : null;
    }

    public function putBundle(string $key, string $folder): void
    {
        $to = $this->at($key);
        if (is_dir($to)) {
            Folders::remove($folder);

            return;
        }
        Folders::make(\dirname($to));
        if (!@rename($folder, $to) && !is_dir($to)) {
            throw CannotStore::file($key);
        }
    }

    public function bundle(string $key): ?string
    {
        return is_dir($this->at($key)) ? $this->at($key) : null;
    }

    public function remove(string $key): void
    {
        Folders::remove($this->at($key));
    }

    public function below(string $key): array
    {
        return Folders::names($this->at($key));
    }

    public function age(string $key): ?int
    {
        $at = @filemtime($this->at($key));

        return false === $at ? null : max(0, time() - $at);
    }

    public function workshop(): string
    {
        return $this->root;
    }

    private function at(string $key): string
    {
        return $this->root.'/'.Folders::key($key);
    }
}
