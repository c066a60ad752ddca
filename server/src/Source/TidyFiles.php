<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\DBAL\Connection;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Output\OutputInterface;

/** Pictures of pages that were removed are made again when the removal is undone, so they need not be kept for ever. */
#[AsCommand('plinth:files:tidy', 'Removes the pictures of pages that are in no project any more; source files stay.')]
final readonly class TidyFiles
{
    /** s: what was sent longer ago and has not been taken is not wanted any more */
    private const DAY = 86_400;

    public function __construct(private FileStore $files, private Connection $connection)
    {
    }

    public function __invoke(OutputInterface $output): int
    {
        $removed = 0;
        foreach ($this->files->pageFolders() as $page) {
            if (false === $this->connection->fetchOne('SELECT 1 FROM page WHERE project = ? AND id = ?', $page->binary())) {
                $this->files->removeFolder($this->files->pageFolder($page));
                ++$removed;
            }
        }
        $this->connection->executeStatement('DELETE FROM rectified_picture WHERE (project, id) NOT IN (SELECT project, id FROM drawing)');
        $this->files->forgetArrivals(self::DAY);
        $output->writeln(\sprintf('Pictures of %d removed pages are gone.', $removed));

        return 0;
    }
}
