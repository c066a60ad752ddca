<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

use Plinth\Server\Change\Aftermath;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Job\Jobs;
use Plinth\Server\Source\Page;

/**
 * Pages that are new have their pictures made: the job is there exactly when the page is, since its queue is a table of the same database.
 */
final readonly class AskForPictures implements Aftermath
{
    public function __construct(private Jobs $jobs)
    {
    }

    public function after(Workspace $workspace, int $revision): void
    {
        foreach ($workspace->touched(Page::class) as $page) {
            if (null === $workspace->was(Page::class, $page->id())) {
                $this->jobs->ask(ImportPage::class, $page->key());
            }
        }
    }
}
