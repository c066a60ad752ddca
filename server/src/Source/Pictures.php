<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\DBAL\Connection;
use Plinth\Server\Change\RowId;
use Plinth\Server\Job\Jobs;
use Plinth\Server\Source\Making\ImportPage;

/** What is shown of pages is made from the source files and kept as long as it lasts: whoever finds it missing asks for it to be made again. */
final readonly class Pictures
{
    public function __construct(private Connection $connection, private FileStore $files, private Jobs $jobs)
    {
    }

    /** Has the pictures of a page made anew, from whatever state it is in. */
    public function make(RowId $page): void
    {
        $this->connection->transactional(function () use ($page): void {
            $this->connection->executeStatement('UPDATE page SET state = ?, message = ?, tiles_done = 0 WHERE project = ? AND id = ?', [PageState::Waiting->value, '', ...$page->binary()]);
            $this->jobs->ask(ImportPage::class, $page);
        });
    }

    /** Whether a page says that it is ready and has none. */
    public function areMissing(Page $page): bool
    {
        return PageState::Ready === $page->state() && null === $this->files->pictures($page->key(), $page->pictures());
    }
}
