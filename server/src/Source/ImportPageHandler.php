<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\DBAL\Connection;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Messenger\Exception\UnrecoverableMessageHandlingException;
use Symfony\Component\Uid\Uuid;

/**
 * Makes what the board shows of a page: a preview at once, then the picture decoded once, its grey values raw, and the
 * tile pyramid. Writes into a folder beside the final one and puts it in place at the end, so running twice is safe.
 */
#[AsMessageHandler]
final readonly class ImportPageHandler
{
    public const TILE = 256;
    private const PREVIEW = 1400;
    private const SECONDS = 600.0;
    /** A picture whose colours nowhere differ more than this is line work on yellowed paper: grey serves it. */
    private const COLOURFUL = 24;

    public function __construct(private Connection $connection, private FileStore $files, private PictureTool $tool)
    {
    }

    public function __invoke(ImportPage $message): void
    {
        $id = Uuid::fromString($message->page);
        $page = $this->connection->fetchAssociative('SELECT p.width, p.height, p.state, s.sha256 FROM page p JOIN source s ON s.id = p.source WHERE p.id = ?', [$id->toBinary()]);
        if (false === $page || !\is_string($page['sha256']) || !is_numeric($page['width']) || !is_numeric($page['height']) || \in_array($page['state'], [PageState::Ready->value, PageState::Stopped->value], true)) {
            return; // taken back meanwhile, finished by an earlier try, or stopped
        }
        $folder = $this->files->pageFolder($id);
        $work = $folder.'.part';
        $this->files->removeFolder($work);
        @mkdir($work, 0o755, true);
        @mkdir($folder, 0o755, true);
        try {
            $this->set($id, ['state' => PageState::Working->value, 'tiles_done' => 0, 'tiles_total' => self::tiles((int) $page['width'], (int) $page['height']), 'message' => '']);
            $suffix = $this->make($id, $this->files->sourcePath($page['sha256']), $work, $folder);
            $this->files->removeFolder($folder.'/tiles');
            rename($work.'/tiles', $folder.'/tiles');
            rename($work.'/grey.raw', $folder.'/grey.raw');
            $this->connection->executeStatement('UPDATE page SET state = ?, tiles_done = tiles_total, tile_suffix = ? WHERE id = ? AND state = ?', [PageState::Ready->value, $suffix, $id->toBinary(), PageState::Working->value]);
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

    /** @return string suffix of the tiles */
    private function make(Uuid $id, string $source, string $work, string $folder): string
    {
        $mayGoOn = fn (): bool => $this->isWanted($id);
        $this->tool->run(['vips', 'thumbnail', $source, $work.'/preview.jpg[Q=82,strip,background=255]', (string) self::PREVIEW, '--size', 'down', '--fail-on', 'truncated'], 120.0, $mayGoOn);
        rename($work.'/preview.jpg', $folder.'/preview.jpg');
        $this->set($id, ['has_preview' => 1]);
        $grey = !$this->isColourful($work, $folder.'/preview.jpg');
        // Decoded once, upright, without transparency; both results are made from this.
        $this->tool->run(['vips', 'autorot', $source.'[fail-on=truncated]', $work.'/upright.v'], self::SECONDS, $mayGoOn);
        $this->tool->run(['vips', 'colourspace', $work.'/upright.v', $work.'/space.v', $grey ? 'b-w' : 'srgb'], self::SECONDS, $mayGoOn);
        $picture = $this->withoutTransparency($work.'/space.v', $work, $mayGoOn);
        $greyPicture = $picture;
        if (!$grey) {
            $this->tool->run(['vips', 'colourspace', $picture, $work.'/grey.v', 'b-w'], self::SECONDS, $mayGoOn);
            $greyPicture = $work.'/grey.v';
        }
        $this->tool->run(['vips', 'rawsave', $greyPicture, $work.'/grey.raw'], self::SECONDS, $mayGoOn);
        $suffix = $grey ? '.png' : '.jpg';
        $this->tool->run(
            ['vips', 'dzsave', $picture, $work.'/tiles', '--layout', 'google', '--suffix', $grey ? '.png[compression=6]' : '.jpg[Q=86]', '--tile-size', (string) self::TILE, '--overlap', '0', '--background', '255', '--skip-blanks=-1'],
            self::SECONDS,
            function () use ($id, $work): bool {
                $this->set($id, ['tiles_done' => self::count($work.'/tiles')]);

                return $this->isWanted($id);
            },
        );

        return $suffix;
    }

    /** @param callable(): bool $mayGoOn */
    private function withoutTransparency(string $picture, string $work, callable $mayGoOn): string
    {
        if (\in_array($this->tool->describe($picture)['bands'], [1, 3], true)) {
            return $picture;
        }
        $this->tool->run(['vips', 'flatten', $picture, $work.'/flat.v', '--background', '255'], self::SECONDS, $mayGoOn);

        return $work.'/flat.v';
    }

    /** Judged on a small copy: the spread between the colour bands of any pixel. */
    private function isColourful(string $work, string $preview): bool
    {
        $this->tool->run(['vips', 'thumbnail', $preview, $work.'/small.v', '256'], 60.0);
        if ($this->tool->describe($work.'/small.v')['bands'] < 3) {
            return false;
        }
        $this->tool->run(['vips', 'rawsave', $work.'/small.v', $work.'/small.raw'], 60.0);
        $bytes = (string) file_get_contents($work.'/small.raw');
        for ($i = 0, $n = \strlen($bytes) - 2; $i < $n; $i += 3) {
            $r = \ord($bytes[$i]);
            $g = \ord($bytes[$i + 1]);
            $b = \ord($bytes[$i + 2]);
            if (max($r, $g, $b) - min($r, $g, $b) > self::COLOURFUL) {
                return true;
            }
        }

        return false;
    }

    /** Tiles of the whole pyramid, which halves until one tile holds the page. */
    public static function tiles(int $width, int $height): int
    {
        $total = 0;
        do {
            $count = (int) (ceil($width / self::TILE) * ceil($height / self::TILE));
            $total += $count;
            $width = intdiv($width + 1, 2);
            $height = intdiv($height + 1, 2);
        } while ($count > 1);

        return $total;
    }

    private static function count(string $folder): int
    {
        if (!is_dir($folder)) {
            return 0;
        }
        $count = 0;
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($folder, \FilesystemIterator::SKIP_DOTS)) as $file) {
            $count += $file instanceof \SplFileInfo && \in_array($file->getExtension(), ['png', 'jpg'], true) ? 1 : 0;
        }

        return $count;
    }

    private function isWanted(Uuid $id): bool
    {
        return PageState::Working->value === $this->connection->fetchOne('SELECT state FROM page WHERE id = ?', [$id->toBinary()]);
    }

    /** @param array<string, scalar> $values */
    private function set(Uuid $id, array $values): void
    {
        $this->connection->update('page', $values, ['id' => $id->toBinary()]);
    }
}
