<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

/** What somebody may do with a project. */
enum Role: string
{
    case Owner = 'owner';
    case Edit = 'edit';
    case Read = 'read';

    public function mayWrite(): bool
    {
        return self::Read !== $this;
    }
}
