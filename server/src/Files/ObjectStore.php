<?php

declare(strict_types=1);

namespace Plinth\Server\Files;

use League\Flysystem\FilesystemException;
use League\Flysystem\FilesystemOperator;
use Psr\Log\LoggerInterface;

/**
 * A store of objects that all nodes reach over the network, with what this one has read kept beside it. A bundle is one object, a tar
 * file (POSIX.1-2001), and a second one with its SHA-256: what comes back otherwise than it went is as good as gone, and is said.
 */
final readonly class ObjectStore implements Store
{
    /** @param string $cache folder of this machine */
    public function __construct(private FilesystemOperator $objects, private string $cache, private LoggerInterface $logger)
    {
    }

    public function put(string $key, string $path): void
    {
        try {
            if (!$this->objects->fileExists(Folders::key($key))) {
                $this->send($key, $path);
            }
        } catch (FilesystemException $e) {
            throw $this->cannot($key, $e);
        }
    }

    public function file(string $key): ?string
    {
        $to = $this->cache.'/'.Folders::key($key);
        if (is_file($to)) {
            return $to;
        }

        return $this->fetch($key, $to) ? $to : null;
    }

    public function putBundle(string $key, string $folder): void
    {
        $tar = $this->part('bundle').'.tar';
        try {
            (new \PharData($tar))->buildFromDirectory($folder);
            $sum = $this->part('sum');
            file_put_contents($sum, (string) hash_file('sha256', $tar));
            // The sum last: without it there is no bundle.
            $this->send("$key.tar", $tar);
            $this->send("$key.sha256", $sum);
            @unlink($sum);
        } catch (FilesystemException|\PharException|\UnexpectedValueException $e) {
            throw $this->cannot($key, $e);
        } finally {
            @unlink($tar);
        }
        (new LocalStore($this->cache))->putBundle($key, $folder);
    }

    public function bundle(string $key): ?string
    {
        $to = $this->cache.'/'.Folders::key($key);
        if (is_dir($to)) {
            return $to;
        }
        [$tar, $folder] = [$this->part('bundle').'.tar', $this->part('folder')];
        try {
            $sum = $this->objects->fileExists("$key.sha256") ? trim($this->objects->read("$key.sha256")) : null;
            if (null === $sum || !$this->fetch("$key.tar", $tar)) {
                return null;
            }
            if (!hash_equals($sum, (string) hash_file('sha256', $tar))) {
                $this->logger->critical("The bundle “{$key}” came back damaged from the store of files; it is made again.");

                return null;
            }
            Folders::make($folder);
            (new \PharData($tar))->extractTo($folder);
            (new LocalStore($this->cache))->putBundle($key, $folder);

            return $to;
        } catch (FilesystemException|\PharException|\UnexpectedValueException $e) {
            throw $this->cannot($key, $e);
        } finally {
            @unlink($tar);
            Folders::remove($folder);
        }
    }

    public function remove(string $key): void
    {
        try {
            $this->objects->deleteDirectory(Folders::key($key));
            foreach ([$key, "$key.sha256", "$key.tar"] as $object) {
                $this->objects->delete($object);
            }
        } catch (FilesystemException $e) {
            throw $this->cannot($key, $e);
        }
        Folders::remove($this->cache.'/'.$key);
    }

    public function below(string $key): array
    {
        try {
            $names = [];
            foreach ($this->objects->listContents(Folders::key($key)) as $item) {
                $name = basename($item->path());
                // A bundle is there once its sum is.
                if (!str_ends_with($name, '.tar')) {
                    $names[preg_replace('/\.sha256$/', '', $name) ?? $name] = true;
                }
            }

            return array_map(strval(...), array_keys($names));
        } catch (FilesystemException $e) {
            throw $this->cannot($key, $e);
        }
    }

    public function age(string $key): ?int
    {
        try {
            return $this->objects->fileExists(Folders::key($key)) ? max(0, time() - $this->objects->lastModified($key)) : null;
        } catch (FilesystemException $e) {
            throw $this->cannot($key, $e);
        }
    }

    public function workshop(): string
    {
        return $this->cache;
    }

    private function send(string $key, string $path): void
    {
        $stream = fopen($path, 'r');
        if (false === $stream) {
            throw CannotStore::file($key);
        }
        $this->objects->writeStream($key, $stream);
        if (\is_resource($stream)) {
            fclose($stream);
        }
    }

    /** @return bool whether there was such an object */
    private function fetch(string $key, string $to): bool
    {
        try {
            if (!$this->objects->fileExists($key)) {
                return false;
            }
            Folders::make(\dirname($to));
            $part = $to.'.part-'.bin2hex(random_bytes(6));
            $file = fopen($part, 'w');
            $whole = false !== $file && false !== stream_copy_to_stream(
                $this->objects->readStream($key),
                $file,
            ) && fclose($file) && rename($part, $to);
            if (!$whole) {
                @unlink($part);
                throw CannotStore::file($key);
            }

            return true;
        } catch (FilesystemException $e) {
            throw $this->cannot($key, $e);
        }
    }

    private function part(string $what): string
    {
        Folders::make($this->cache.'/making');

        return $this->cache."/making/$what.part-".bin2hex(random_bytes(6));
    }

    private function cannot(string $key, \Throwable $e): CannotStore
    {
        $this->logger->error("The store of files does not answer: {$e->getMessage()}");

        return CannotStore::file($key);
    }
}
