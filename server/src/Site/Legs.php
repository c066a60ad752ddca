<?php

declare(strict_types=1);

namespace Plinth\Server\Site;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Site\Leg;

/** The legs of a boundary in their order, as the core takes them. */
final readonly class Legs
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<Leg> with bearings as they run in the model */
    public function of(Boundary $boundary): array
    {
        $up = $boundary->upDegrees();

        return array_map(
            static fn (BoundaryLeg $l): Leg => $l->toCore()->turned(-$up),
            $this->entities->getRepository(BoundaryLeg::class)->findBy(
                ['project' => $boundary->project(), 'boundary' => $boundary->id()],
                ['order' => 'ASC', 'id' => 'ASC'],
            ),
        );
    }
}
