<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Account\User;
use Plinth\Server\Change\Gate;
use Plinth\Server\Change\Revised;
use Plinth\Server\Change\RowId;
use Plinth\Server\Http\Refusal;
use Symfony\Component\Uid\Uuid;

/** Lets owners and editors write, one after another. */
final readonly class WriteGate implements Gate
{
    public function __construct(private EntityManagerInterface $entities, private ProjectAccess $access)
    {
    }

    public function lock(Uuid $project, User $user): Revised
    {
        $locked = $this->entities->find(Project::class, (new RowId($project, $project))->criteria(), LockMode::PESSIMISTIC_WRITE);
        $role = null === $locked ? null : $this->access->roleOf($locked, $user);
        if (null === $locked || null === $role) {
            throw Refusal::notFound();
        }

        return $role->mayWrite() ? $locked : throw Refusal::readOnly();
    }

    public function head(Uuid $project): int
    {
        return $this->access->project($project)->head();
    }
}
