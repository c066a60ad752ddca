<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

use Doctrine\DBAL\Connection;
use Plinth\Server\Source\FileStore;
use Plinth\Server\Source\PageState;
use Plinth\Server\Source\Reading\Format;
use Plinth\Server\Source\Reading\PictureFailure;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Messenger\Exception\UnrecoverableMessageHandlingException;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Uid\Uuid;

/**
 * Brings a page to the board. Writes into a folder beside the final one and puts it in place at the end, so running twice is
 * safe; a page that was removed and comes back finds its folder still there.
 */
#[AsMessageHandler]
final readonly class ImportPageHandler
{
    private const TIDY = ['upright.v', 'space.v', 'flat.v', 'colour.v'];
    private const MADE = 'made.json';
    /** s between looks at the database while a child works */
    private const LOOK = 0.3;

    public function __construct(private Connection $connection, private FileStore $files, private PageMaker $maker, private RegisterPage $register, private MessageBusInterface $bus)
    {
    }

    public function __invoke(ImportPage $message): void
    {
        $id = Uuid::fromString($message->page);
        $row = $this->connection->fetchAssociative('SELECT p.width, p.height, p.number, p.resolution, p.state, p.replaces, s.sha256, s.media_type FROM page p JOIN source s ON s.id = p.source WHERE p.id = ?', [$id->toBinary()]);
        if (false === $row || !\is_string($row['sha256']) || !\is_string($row['media_type']) || !is_numeric($row['width']) || !is_numeric($row['height']) || !is_numeric($row['number']) || \in_array($row['state'], [PageState::Ready->value, PageState::Stopped->value], true)) {
            return; // taken back meanwhile, finished by an earlier try, or stopped
        }
        $folder = $this->files->pageFolder($id);
        $kept = @file_get_contents($folder.'/'.self::MADE);
        if (false !== $kept) {
            $this->ready($id, $kept, [PageState::Waiting, PageState::Working]);
            $this->registerIfNewer($id, $row['replaces']);

            return;
        }
        $work = $folder.'.part';
        $this->files->removeFolder($work);
        @mkdir($work, 0o755, true);
        @mkdir($folder, 0o755, true);
        try {
            $this->set($id, ['state' => PageState::Working->value, 'tiles_done' => 0, 'tiles_total' => self::tiles((int) $row['width'], (int) $row['height']), 'message' => '']);
            $made = $this->maker->make(
                $this->files->sourcePath($row['sha256']), Format::from($row['media_type']), (int) $row['number'], (int) $row['width'], (int) $row['height'],
                is_numeric($row['resolution']) ? (float) $row['resolution'] : null, $work, $this->mayGoOn($id),
                function () use ($id, $work, $folder): void {
                    copy($work.'/preview.jpg', $folder.'/preview.jpg');
                    $this->set($id, ['has_preview' => 1]);
                },
                $this->countingTiles($id, $work),
            );
            $this->putInPlace($id, $made, $work, $folder);
            $this->registerIfNewer($id, $row['replaces']);
        } catch (PictureFailure $e) {
            if ($e->wasStopped) {
                return;
            }
            $this->set($id, ['state' => PageState::Failed->value, 'message' => $e->getMessage()]);
            throw new UnrecoverableMessageHandlingException($e->getMessage(), 0, $e);
        } finally {
            $this->files->removeFolder($work);
        }
    }

    /** @param array<string, mixed> $made */
    private function putInPlace(Uuid $id, array $made, string $work, string $folder): void
    {
        foreach (self::TIDY as $file) {
            @unlink("$work/$file");
        }
        $made['bytes'] = self::bytes($work);
        $json = json_encode($made, \JSON_THROW_ON_ERROR);
        file_put_contents("$work/".self::MADE, $json);
        $this->files->removeFolder($folder);
        rename($work, $folder);
        $this->ready($id, $json, [PageState::Working]);
    }

    /** @param list<PageState> $from */
    private function ready(Uuid $id, string $made, array $from): void
    {
        $suffix = json_decode($made, true);
        $this->connection->executeStatement(
            'UPDATE page SET state = ?, has_preview = 1, tiles_total = ?, tiles_done = ?, tile_suffix = ?, made = ?, message = ? WHERE id = ? AND state IN ('.implode(', ', array_fill(0, \count($from), '?')).')',
            [PageState::Ready->value, $total = $this->total($id), $total, \is_array($suffix) && \is_string($suffix['tileSuffix'] ?? null) ? $suffix['tileSuffix'] : '', $made, '', $id->toBinary(), ...array_map(static fn (PageState $s): string => $s->value, $from)],
        );
        $this->bus->dispatch(new FindSkew($id->toRfc4122()));
    }

    private function total(Uuid $id): int
    {
        $size = $this->connection->fetchNumeric('SELECT width, height FROM page WHERE id = ?', [$id->toBinary()]);

        return false !== $size && is_numeric($size[0]) && is_numeric($size[1]) ? self::tiles((int) $size[0], (int) $size[1]) : 0;
    }

    private function registerIfNewer(Uuid $id, mixed $replaces): void
    {
        if (\is_string($replaces)) {
            $this->register->run($id, []);
        }
    }

    /** Tiles of the whole pyramid, which halves until one tile holds the page. */
    public static function tiles(int $width, int $height): int
    {
        $total = 0;
        do {
            $count = (int) (ceil($width / PageMaker::TILE) * ceil($height / PageMaker::TILE));
            $total += $count;
            $width = intdiv($width + 1, 2);
            $height = intdiv($height + 1, 2);
        } while ($count > 1);

        return $total;
    }

    /** @return callable(): bool */
    private function mayGoOn(Uuid $id): callable
    {
        $last = 0.0;

        return function () use ($id, &$last): bool {
            if (microtime(true) - $last < self::LOOK) {
                return true;
            }
            $last = microtime(true);

            return PageState::Working->value === $this->connection->fetchOne('SELECT state FROM page WHERE id = ?', [$id->toBinary()]);
        };
    }

    /** @return callable(): void */
    private function countingTiles(Uuid $id, string $work): callable
    {
        $last = 0.0;

        return function () use ($id, $work, &$last): void {
            if (microtime(true) - $last >= self::LOOK && is_dir($work.'/tiles')) {
                $last = microtime(true);
                $this->set($id, ['tiles_done' => self::count($work.'/tiles')]);
            }
        };
    }

    /** @return int tiles in a pyramid that is being written */
    public static function count(string $folder): int
    {
        $count = 0;
        foreach (self::filesIn($folder) as $file) {
            $count += \in_array($file->getExtension(), ['png', 'jpg'], true) ? 1 : 0;
        }

        return $count;
    }

    private static function bytes(string $folder): int
    {
        $sum = 0;
        foreach (self::filesIn($folder) as $file) {
            $sum += (int) $file->getSize();
        }

        return $sum;
    }

    /** @return iterable<\SplFileInfo> */
    private static function filesIn(string $folder): iterable
    {
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($folder, \FilesystemIterator::SKIP_DOTS)) as $file) {
            if ($file instanceof \SplFileInfo) {
                yield $file;
            }
        }
    }

    /** @param array<string, scalar> $values */
    private function set(Uuid $id, array $values): void
    {
        $this->connection->update('page', $values, ['id' => $id->toBinary()]);
    }
}
