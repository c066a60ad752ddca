<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Change\Follower;
use Plinth\Server\Change\Occasion;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;

/** There is always a storey to draw on. */
final readonly class KeepsAStorey implements Follower
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public static function place(): int
    {
        return 0;
    }

    public function follow(Workspace $workspace, Occasion $occasion): void
    {
        $more = 0;
        foreach ($workspace->before() as [$class, $id, $before]) {
            if (Storey::class === $class) {
                $now = $workspace->find(Storey::class, $id);
                $more += (null === $now ? 0 : 1) - (null === $before ? 0 : 1);
            }
        }
        if ($more < 0 && $this->entities->getRepository(Storey::class)->count(['project' => $workspace->project()]) + $more < 1) {
            throw Refusal::conflict('last-storey', 'A project keeps one storey at least. Add another one first.');
        }
    }
}
