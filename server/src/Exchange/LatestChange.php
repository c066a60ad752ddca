<?php

declare(strict_types=1);

namespace Plinth\Server\Exchange;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Change\Change;
use Plinth\Server\Project\Project;
use Symfony\Bridge\Doctrine\Types\UuidType;

/** When a project was changed last: what says the same twice is the same file. */
final readonly class LatestChange
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public function of(Project $project): \DateTimeImmutable
    {
        $at = $this->entities->createQuery('SELECT MAX(c.at) FROM '.Change::class.' c WHERE c.project = :project')
            ->setParameter('project', $project->id(), UuidType::NAME)
            ->getSingleScalarResult();

        return new \DateTimeImmutable(\is_string($at) ? $at : '@0', new \DateTimeZone('UTC'));
    }
}
