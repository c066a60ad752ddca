<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

use Doctrine\DBAL\Connection;
use Plinth\Core\Ink\Skew;
use Plinth\Server\Source\FileStore;
use Plinth\Server\Source\Reading\PictureFailure;
use Plinth\Server\Source\Reading\PictureTool;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Uid\Uuid;

/** Finds the skew of an imported page and keeps it with what the import found. */
#[AsMessageHandler]
final readonly class FindSkewHandler
{
    private const SECONDS = 120.0;

    public function __construct(private Connection $connection, private FileStore $files, private PictureTool $tool)
    {
    }

    public function __invoke(FindSkew $message): void
    {
        $id = Uuid::fromString($message->page);
        $grey = $this->files->pageFolder($id).'/'.PageMaker::GREY;
        $made = $this->connection->fetchOne('SELECT made FROM page WHERE id = ?', [$id->toBinary()]);
        $made = \is_string($made) ? json_decode($made, true) : null;
        if (!\is_array($made) || !is_file($grey)) {
            return; // removed, or read anew meanwhile: that asks again
        }
        $head = PictureHeader::of($grey);
        $factor = max(1, intdiv(max($head->width, $head->height), Skew::SIDE));
        $work = $this->files->workFolder();
        $small = $work.'/small.v';
        try {
            if ($factor > 1) {
                $this->tool->run(['vips', 'shrink', $grey, $small, (string) $factor, (string) $factor], self::SECONDS, [$grey], $work);
            }
            $skew = Skew::of(PageMaker::raster($factor > 1 ? $small : $grey));
        } catch (PictureFailure) {
            return; // the drawing can be squared by hand
        } finally {
            $this->files->removeFolder($work);
        }
        $made['skew'] = null === $skew ? null : ['degrees' => $skew->degrees, 'sigmaDegrees' => $skew->sigmaDegrees, 'confidence' => $skew->confidence];
        $this->connection->update('page', ['made' => json_encode($made, \JSON_THROW_ON_ERROR)], ['id' => $id->toBinary()]);
    }
}
