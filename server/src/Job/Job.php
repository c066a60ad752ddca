<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

use Plinth\Server\Change\RowId;

/** A piece of long work as a worker has taken it. */
final readonly class Job
{
    /**
     * @param string $basis what it was asked for
     * @param array<string, mixed> $more what its kind needs to know beside the row it is about
     * @param int $tries times it was begun since it was asked for, this one included
     */
    public function __construct(
        public int $number,
        public string $kind,
        public RowId $about,
        public string $basis,
        public array $more,
        public int $attempt,
        public int $tries,
    ) {
    }
}
