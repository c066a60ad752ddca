<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A project that its owner shares with somebody else. */
#[ORM\Entity]
#[ORM\Index(fields: ['user'])]
class ProjectShare
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $project;

    #[ORM\Id]
    #[ORM\Column(name: 'shared_with', type: UuidType::NAME)]
    private Uuid $user;

    #[ORM\Column(length: 5)]
    private Role $role;

    public function __construct(Uuid $project, Uuid $user, Role $role)
    {
        $this->project = $project;
        $this->user = $user;
        $this->role = $role;
    }

    public function project(): Uuid
    {
        return $this->project;
    }

    public function user(): Uuid
    {
        return $this->user;
    }

    public function role(): Role
    {
        return $this->role;
    }

    public function becomes(Role $role): void
    {
        $this->role = $role;
    }
}
