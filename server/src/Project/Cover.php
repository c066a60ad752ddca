<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Symfony\Component\Uid\Uuid;

/** The page whose preview stands for a project in a list. */
interface Cover
{
    /**
     * @param list<Uuid> $projects
     *
     * @return array<string, string> id of a project → id of the page, where there is one with a preview
     */
    public function of(array $projects): array;
}
