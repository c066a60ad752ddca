<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\DBAL\Connection;
use Plinth\Server\Change\Raw;
use Symfony\Component\Cache\PruneableInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Contracts\Cache\CacheInterface;

/**
 * Pictures of pages that were removed are made again when the removal is undone, so they need not be kept for ever; files that no history
 * names can come back by no undo.
 */
#[AsCommand('plinth:files:tidy', 'Removes pictures that no page shows any more, and source files that no project and no history has named for a month.')]
final readonly class TidyFiles
{
    /** s: what was sent longer ago and has not been taken is not wanted any more */
    private const DAY = 86_400;
    /** s that a file is kept after it was taken in, whatever becomes of its project */
    private const MONTH = 30 * self::DAY;

    public function __construct(private FileStore $files, private Connection $connection, private CacheInterface $cache)
    {
    }

    public function __invoke(OutputInterface $output): int
    {
        $pictures = 0;
        foreach ($this->files->pages() as $page) {
            $shown = Raw::text($this->connection->fetchOne('SELECT pictures FROM page WHERE project = ? AND id = ?', $page->binary()));
            foreach ($this->files->versions($page) as $version) {
                if ($version !== $shown) {
                    $this->files->forgetPictures($page, $version);
                    ++$pictures;
                }
            }
        }
        $sources = 0;
        foreach ($this->files->sources() as $hash) {
            if ($this->files->ageOfSource($hash) > self::MONTH && !$this->isNamed($hash)) {
                $this->files->forgetSource($hash);
                ++$sources;
            }
        }
        $this->connection->executeStatement('DELETE FROM rectified_picture WHERE (project, id) NOT IN (SELECT project, id FROM drawing)');
        $this->files->forgetArrivals(self::DAY);
        if ($this->cache instanceof PruneableInterface) {
            $this->cache->prune(); // what nobody has asked for lately is found again
        }
        $output->writeln(\sprintf('%d pictures of pages and %d source files that nothing names are gone.', $pictures, $sources));

        return 0;
    }

    private function isNamed(string $hash): bool
    {
        return false !== $this->connection->fetchOne('SELECT 1 FROM source WHERE sha256 = ? LIMIT 1', [$hash])
            || false !== $this->connection->fetchOne('SELECT 1 FROM project_change WHERE touches LIKE ? LIMIT 1', ['%'.$hash.'%']);
    }
}
