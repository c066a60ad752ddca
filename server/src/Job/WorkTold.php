<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

use Plinth\Server\Project\Teller;
use Plinth\Server\Project\Telling;

/** How far the long work of a project is. */
final readonly class WorkTold implements Teller
{
    public function __construct(private Jobs $jobs)
    {
    }

    public static function name(): string
    {
        return 'work';
    }

    public function tell(Telling $about): string
    {
        return json_encode(
            array_map(static fn (Progress $p): array => $p->describe(), $this->jobs->moved($about->project->id(), $about->after())),
            \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES,
        );
    }
}
