<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Plinth\Server\Change\RowId;
use Plinth\Server\Job\Jobs;
use Plinth\Server\Job\JobState;
use Plinth\Server\Source\Making\ImportPage;

/**
 * What is shown of pages is made from the source files and kept as long as it lasts: whoever finds it missing asks for it to be made again.
 */
final readonly class Pictures
{
    public function __construct(private FileStore $files, private Jobs $jobs)
    {
    }

    public function make(RowId $page): void
    {
        $this->jobs->want(ImportPage::class, $page);
    }

    /** Whether a page says that it has pictures and they are not there; nobody has stopped them, and they have not failed. */
    public function areMissing(Page $page): bool
    {
        return '' !== $page->pictures() && null === $this->files->pictures($page->key(), $page->pictures())
            && !\in_array($this->jobs->of(ImportPage::class, $page->key())->state, [JobState::Failed, JobState::Stopped], true);
    }
}
