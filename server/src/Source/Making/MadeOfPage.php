<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

use Doctrine\DBAL\Connection;
use Plinth\Server\Change\Raw;
use Plinth\Server\Change\RowId;
use Plinth\Server\Job\Jobs;

/** What is found out about a page after its import, kept with what the import made of it. */
final readonly class MadeOfPage
{
    public function __construct(private Connection $connection, private Jobs $jobs)
    {
    }

    /** @return string version of a page's pictures; empty before there are any, and where there is no such page */
    public function pictures(RowId $page): string
    {
        return Raw::text($this->connection->fetchOne('SELECT pictures FROM page WHERE project = ? AND id = ?', $page->binary()));
    }

    /**
     * In a transaction; nothing where the page is gone or was read anew meanwhile.
     *
     * @param string $pictures version of those that it was found in
     * @param array<string, array<array-key, mixed>|null> $found by name
     */
    public function keep(RowId $page, string $pictures, array $found): void
    {
        $row = $this->connection->fetchAssociative('SELECT made, pictures FROM page WHERE project = ? AND id = ? FOR UPDATE', $page->binary());
        $made = false === $row || Raw::text($row['pictures']) !== $pictures ? null : json_decode(Raw::text($row['made']), true);
        if (\is_array($made)) {
            $this->connection->update(
                'page',
                ['made' => json_encode($found + $made, \JSON_THROW_ON_ERROR)],
                ['project' => $page->project->toBinary(), 'id' => $page->id->toBinary()],
            );
            $this->jobs->foundAbout($page);
        }
    }
}
