<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Symfony\Component\Uid\Uuid;

/** A row is known by its project and its id in it together: the same id in another project is another row. */
final readonly class RowId
{
    public function __construct(public Uuid $project, public Uuid $id)
    {
    }

    /** @return array{project: Uuid, id: Uuid} as the entity manager takes it */
    public function criteria(): array
    {
        return ['project' => $this->project, 'id' => $this->id];
    }

    /** @return array{string, string} for `project = ? AND id = ?` */
    public function binary(): array
    {
        return [$this->project->toBinary(), $this->id->toBinary()];
    }
}
