<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Account\User;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowId;
use Plinth\Server\Http\Refusal;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\Uid\Uuid;

/** Who may see what. A foreign thing is answered like one that does not exist. */
final readonly class ProjectAccess
{
    public function __construct(private EntityManagerInterface $entities, private Security $security)
    {
    }

    public function user(): User
    {
        $user = $this->security->getUser();

        return $user instanceof User ? $user : throw new \LogicException('The firewall lets nobody else through.');
    }

    public function project(Uuid $id): Project
    {
        $project = $this->entities->find(Project::class, (new RowId($id, $id))->criteria());

        return null !== $project && null !== $this->roleOf($project, $this->user()) ? $project : throw Refusal::notFound();
    }

    public function role(Project $project): Role
    {
        return $this->roleOf($project, $this->user()) ?? throw Refusal::notFound();
    }

    /** Null where somebody has nothing to do with a project. */
    public function roleOf(Project $project, User $user): ?Role
    {
        return $project->belongsTo($user) ? Role::Owner : $this->entities->find(ProjectShare::class, [
            'project' => $project->id(),
            'user' => $user->id(),
        ])?->role();
    }

    /**
     * A row of a project that the route's guard has let one into.
     *
     * @template T of ProjectRow
     *
     * @param class-string<T> $class
     *
     * @return T
     */
    public function row(string $class, Uuid $project, Uuid $id): ProjectRow
    {
        return $this->entities->find($class, (new RowId($project, $id))->criteria()) ?? throw Refusal::notFound();
    }
}
