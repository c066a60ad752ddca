<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Plinth\Server\Change\DiskSpace;
use Plinth\Server\Change\RowId;
use Plinth\Server\Files\CannotStore;
use Plinth\Server\Files\Folders;
use Plinth\Server\Files\Store;
use Plinth\Server\Http\Refusal;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Uid\Uuid;

/**
 * What is kept of sources in the store of files: each file by its content, and the pictures made of each page as a bundle of a version of
 * its own. Work that is under way lies on this machine.
 */
final readonly class FileStore
{
    public function __construct(private Store $store, private DiskSpace $disk, private int $leastFreeMb)
    {
    }

    /**
     * Takes a file in under its SHA-256; the same bytes are stored once.
     *
     * @return string the hash
     */
    public function takeIn(string $path): string
    {
        $hash = (string) hash_file('sha256', $path);
        $this->store->put(self::sourceKey($hash), $path);

        return $hash;
    }

    /** @return string|null where a source's file can be read, as it was taken in; null where it is not there or not that any more */
    public function source(string $hash): ?string
    {
        $path = $this->store->file(self::sourceKey($hash));

        return null !== $path && hash_equals($hash, (string) @hash_file('sha256', $path)) ? $path : null;
    }

    /** @return bool whether there is a file that is not what it was taken in as */
    public function isDamaged(string $hash): bool
    {
        return null !== $this->store->file(self::sourceKey($hash)) && null === $this->source($hash);
    }

    /** @return list<string> hashes of the files that are kept */
    public function sources(): array
    {
        $hashes = [];
        foreach ($this->store->below('sources') as $head) {
            foreach ($this->store->below("sources/$head") as $rest) {
                $hashes[] = $head.$rest;
            }
        }

        return $hashes;
    }

    /** @return int s since a source was taken in */
    public function ageOfSource(string $hash): int
    {
        return $this->store->age(self::sourceKey($hash)) ?? 0;
    }

    public function forgetSource(string $hash): void
    {
        $this->store->remove(self::sourceKey($hash));
    }

    /** @return string|null the folder of a page's pictures of a version, here; null where they are missing */
    public function pictures(RowId $page, string $version): ?string
    {
        return '' === $version ? null : $this->store->bundle(self::pageKey($page).'/'.$version);
    }

    /**
     * Puts a finished folder of pictures where all nodes find it.
     *
     * @return string the version that it is
     */
    public function keepPictures(RowId $page, string $folder): string
    {
        $version = bin2hex(random_bytes(8));
        $this->store->putBundle(self::pageKey($page).'/'.$version, $folder);

        return $version;
    }

    /** @return list<string> of the pictures that are kept of a page */
    public function versions(RowId $page): array
    {
        return $this->store->below(self::pageKey($page));
    }

    public function forgetPictures(RowId $page, string $version): void
    {
        $this->store->remove(self::pageKey($page).'/'.$version);
    }

    /** A preview that is there before the pictures are. */
    public function keepPreview(RowId $page, string $path): void
    {
        $this->store->remove(self::previewKey($page));
        $this->store->put(self::previewKey($page), $path);
    }

    public function forgetPreview(RowId $page): void
    {
        $this->store->remove(self::previewKey($page));
    }

    public function preview(RowId $page): ?string
    {
        return $this->store->file(self::previewKey($page));
    }

    /** Of straightened pictures, which are known by what they show. */
    public function straightened(RowId $drawing, string $shape): ?string
    {
        return $this->store->bundle(self::straightKey($drawing).'/'.$shape);
    }

    public function keepStraightened(RowId $drawing, string $shape, string $folder): void
    {
        $this->store->putBundle(self::straightKey($drawing).'/'.$shape, $folder);
        foreach ($this->store->below(self::straightKey($drawing)) as $older) {
            if ($older !== $shape) {
                $this->store->remove(self::straightKey($drawing).'/'.$older);
            }
        }
    }

    /** A new empty folder for something that is made and put in its place, or taken away again. */
    public function workFolder(): string
    {
        $folder = $this->store->workshop().'/making/'.bin2hex(random_bytes(8));
        try {
            Folders::make($folder);
        } catch (CannotStore) {
            throw Refusal::noRoom();
        }

        return $folder;
    }

    public function removeFolder(string $folder): void
    {
        if (str_starts_with($folder, $this->store->workshop().'/making/')) {
            Folders::remove($folder);
        }
    }

    /** Takes a file that was sent out of the way it came in by, at once and once only. */
    public function receive(string $path, RowId $arrival): bool
    {
        // Two that reach for the same one do not both get it.
        $mine = $path.'.taken-'.bin2hex(random_bytes(6));
        if (!@rename($path, $mine)) {
            return false;
        }
        try {
            $this->store->put(self::arrivalKey($arrival), $mine);
        } catch (CannotStore) {
            @rename($mine, $path);

            return false;
        }
        @unlink($mine);

        return true;
    }

    /** Where a file that was sent can be read until it has been looked at. */
    public function arrival(RowId $arrival): ?string
    {
        return $this->store->file(self::arrivalKey($arrival));
    }

    public function forgetArrival(RowId $arrival): void
    {
        $this->store->remove(self::arrivalKey($arrival));
    }

    /** Removes files that were sent some seconds ago and never taken, and what work has left behind here. */
    public function forgetArrivals(int $seconds): void
    {
        foreach ($this->store->below('arrivals') as $name) {
            if (($this->store->age("arrivals/$name") ?? 0) > $seconds) {
                $this->store->remove("arrivals/$name");
            }
        }
        foreach (Folders::names($this->store->workshop().'/making') as $name) {
            $path = $this->store->workshop().'/making/'.$name;
            if ((int) @filemtime($path) < time() - $seconds) {
                Folders::remove($path);
            }
        }
    }

    /** @throws Refusal when the disk has no room for a file and what is made from it */
    public function refuseWithoutRoom(int $bytes): void
    {
        // A decoded page takes up to some twenty times its file for a while.
        if ($this->disk->free($this->store->workshop()) - 4.0 * $bytes < $this->leastFreeMb * 1e6) {
            throw Refusal::noRoom();
        }
    }

    /** @return iterable<RowId> pages of which pictures are kept */
    public function pages(): iterable
    {
        foreach ($this->store->below('pages') as $project) {
            foreach (Uuid::isValid($project) ? $this->store->below("pages/$project") : [] as $page) {
                if (Uuid::isValid($page)) {
                    yield new RowId(Uuid::fromString($project), Uuid::fromString($page));
                }
            }
        }
    }

    /** @param string|null $path of a file that is to be sent: nginx does it, from the disk of this machine */
    public function served(?string $path, string $type): Response
    {
        $root = $this->store->workshop().'/';
        if (null === $path || !str_starts_with($path, $root) || !is_file($path)) {
            throw Refusal::notFound();
        }

        return new Response('', 200, [
            'X-Accel-Redirect' => '/internal-files/'.substr($path, \strlen($root)),
            'Content-Type' => $type,
            'Cache-Control' => 'private, max-age=31536000, immutable',
            'X-Content-Type-Options' => 'nosniff',
        ]);
    }

    private static function sourceKey(string $hash): string
    {
        return 'sources/'.substr($hash, 0, 2).'/'.substr($hash, 2);
    }

    private static function pageKey(RowId $page): string
    {
        return 'pages/'.$page->project->toRfc4122().'/'.$page->id->toRfc4122();
    }

    private static function previewKey(RowId $page): string
    {
        return 'previews/'.$page->project->toRfc4122().'/'.$page->id->toRfc4122().'.jpg';
    }

    private static function straightKey(RowId $drawing): string
    {
        return 'straightened/'.$drawing->project->toRfc4122().'/'.$drawing->id->toRfc4122();
    }

    private static function arrivalKey(RowId $arrival): string
    {
        return 'arrivals/'.$arrival->project->toRfc4122().'-'.$arrival->id->toRfc4122();
    }
}
