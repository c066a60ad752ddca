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
        return self::inModel($boundary, $this->rows($boundary));
    }

    /**
     * Those that were measured: one that was computed to close it leaves nothing to be tested.
     *
     * @return list<Leg>
     */
    public function measured(Boundary $boundary): array
    {
        $measured = array_filter($this->rows($boundary), static fn (BoundaryLeg $l): bool => !$l->isComputed());

        return self::inModel($boundary, array_values($measured));
    }

    /** @return list<BoundaryLeg> */
    private function rows(Boundary $boundary): array
    {
        return $this->entities->getRepository(BoundaryLeg::class)->findBy(
            ['project' => $boundary->project(), 'boundary' => $boundary->id()],
            ['order' => 'ASC', 'id' => 'ASC'],
        );
    }

    /**
     * @param list<BoundaryLeg> $rows
     *
     * @return list<Leg>
     */
    private static function inModel(Boundary $boundary, array $rows): array
    {
        $up = $boundary->upDegrees();

        return array_map(static fn (BoundaryLeg $l): Leg => $l->toCore()->turned(-$up), $rows);
    }
}
