<?php

declare(strict_types=1);

namespace Plinth\Server\Building;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Dormer;
use Plinth\Core\Plan\Model\Finish as CoreFinish;
use Plinth\Core\Plan\Model\FloorVoid;
use Plinth\Core\Plan\Model\PitchedRoof;
use Plinth\Core\Plan\Model\PlacedObject as CoreObject;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Shaft;
use Plinth\Core\Plan\Model\Slab;
use Plinth\Core\Plan\Model\Stair as CoreStair;
use Plinth\Core\Plan\Model\StairLimit as CoreStairLimit;
use Plinth\Core\Plan\Model\Storey as CoreStorey;
use Plinth\Core\Plan\Model\Surface as CoreSurface;
use Plinth\Server\Drafting\SweptProfiles;
use Plinth\Server\Elevation\Outline;
use Plinth\Server\Elevation\OutlineCorner;
use Plinth\Server\Elevation\OutlineKind;
use Plinth\Server\Enclosure\ProjectFire;
use Plinth\Server\Finishes\Finish;
use Plinth\Server\Finishes\Surface;
use Plinth\Server\Objects\PlacedObject;
use Plinth\Server\Plan\PlanKeeper;
use Plinth\Server\Project\Storey;
use Plinth\Server\Stairs\Stair;
use Plinth\Server\Stairs\StairLimit;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A project's storeys as the core knows them, with what their outlines make of them: floors, ceilings, voids, roofs. */
final readonly class BuildingPlan
{
    /** What is not said of an outline, mm: common practice, no source. */
    private const FLOOR_MM = 200.0;
    private const CEILING_MM = 30.0;
    private const ROOF_MM = 200.0;
    private const DORMER_MM = 150.0;

    public function __construct(
        private EntityManagerInterface $entities,
        private PlanKeeper $plans,
        private SweptProfiles $sweeps,
        private ProjectFire $fire,
    ) {
    }

    /**
     * All storeys that are no alternatives of others.
     *
     * @param Uuid|null $alternative a storey that is there all the same, instead of the one it is an alternative of
     */
    public function of(Uuid $project, ?Uuid $alternative = null): Plan
    {
        $outlines = $this->outlines($project);
        $storeys = [];
        $rows = $this->entities->getRepository(Storey::class)->findBy(['project' => $project], ['elevation' => 'ASC', 'id' => 'ASC']);
        $instead = null;
        foreach ($rows as $row) {
            $instead = null !== $alternative && $row->id()->equals($alternative) ? ($row->values()['alternativeOf'] ?? null) : $instead;
        }
        foreach ($rows as $row) {
            $isMeant = null !== $alternative && $row->id()->equals($alternative);
            if ($isMeant || (null === $row->values()['alternativeOf'] && $instead !== $row->id()->toRfc4122())) {
                $storeys[] = $this->built($row, $outlines[$row->id()->toRfc4122()] ?? []);
            }
        }

        return new Plan($storeys, $this->finishes($project), $this->stairLimits($project), fire: $this->fire->of($project));
    }

    /** One of them by itself. */
    public function storey(Storey $storey): Plan
    {
        $built = $this->built($storey, $this->outlines($storey->project())[$storey->id()->toRfc4122()] ?? [], true);

        return new Plan([$built], $this->finishes($storey->project()), $this->stairLimits($storey->project()));
    }

    /** @return list<CoreStairLimit> */
    private function stairLimits(Uuid $project): array
    {
        return array_map(
            static fn (StairLimit $l): CoreStairLimit => $l->bounds(),
            $this->entities->getRepository(StairLimit::class)->findBy(['project' => $project], ['id' => 'ASC']),
        );
    }

    /** @return list<CoreFinish> */
    private function finishes(Uuid $project): array
    {
        return array_map(
            static fn (Finish $f): CoreFinish => $f->finishes(),
            $this->entities->getRepository(Finish::class)->findBy(['project' => $project], ['id' => 'ASC']),
        );
    }

    /** @return array<string, list<array{Outline, non-empty-list<OutlineCorner>}>> by storey; those with fewer than three corners are none */
    private function outlines(Uuid $project): array
    {
        $corners = [];
        foreach ($this->entities->getRepository(OutlineCorner::class)->findBy(
            ['project' => $project],
            ['order' => 'ASC', 'id' => 'ASC'],
        ) as $corner) {
            $corners[$corner->outline()->toRfc4122()][] = $corner;
        }
        $outlines = [];
        foreach ($this->entities->getRepository(Outline::class)->findBy(['project' => $project], ['id' => 'ASC']) as $outline) {
            $of = $corners[$outline->id()->toRfc4122()] ?? [];
            if (null !== $outline->storey() && \count($of) > 2) {
                $outlines[$outline->storey()->toRfc4122()][] = [$outline, $of];
            }
        }

        return $outlines;
    }

    /** @param list<array{Outline, non-empty-list<OutlineCorner>}> $outlines */
    private function built(Storey $row, array $outlines, bool $isAlone = false): CoreStorey
    {
        $storey = $this->plans->load($row->key());
        $objects = array_map(
            static fn (PlacedObject $o): CoreObject => $o->stands(),
            $this->entities->getRepository(PlacedObject::class)->findBy(['project' => $row->project(), 'storey' => $row->id()], ['id' => 'ASC']),
        );
        [$floors, $ceilings, $voids, $roofs, $shafts, $dormers] = [[], [], [], [], [], []];
        foreach ($outlines as [$outline, $corners]) {
            $id = $outline->id()->toRfc4122();
            $round = new Contour(
                array_map(static fn (OutlineCorner $c): Point => $c->at(), $corners),
                array_map(static fn (OutlineCorner $c): float => $c->rise(), $corners),
            );
            [$top, $thickness] = [$outline->top(), $outline->thickness()];
            switch ($outline->goesRound()) {
                case OutlineKind::Slab:
                    $floors[] = new Slab($id, $round, $top ?? 0.0, $thickness ?? self::FLOOR_MM, $outline->finish() ?? 0.0);
                    break;
                case OutlineKind::Ceiling:
                    $ceilings[] = new Slab($id, $round, $top ?? $storey->height, $thickness ?? self::CEILING_MM);
                    break;
                case OutlineKind::Void:
                    $voids[] = new FloorVoid($id, $round);
                    break;
                case OutlineKind::Roof:
                    $roofs[] = new PitchedRoof(
                        $id,
                        $round->corners,
                        array_map(static fn (OutlineCorner $c): ?float => $c->pitch(), $corners),
                        array_map(static fn (OutlineCorner $c): float => $c->overhang(), $corners),
                        $top ?? $storey->height,
                        $thickness ?? self::ROOF_MM,
                    );
                    break;
                case OutlineKind::Chimney:
                    if (null !== $top) {
                        $shafts[] = new Shaft($id, $round, null === $thickness ? min(0.0, $top - 1.0) : $top - $thickness, $top);
                    }
                    break;
                case OutlineKind::Dormer:
                    if (null !== $top) {
                        $dormers[] = new Dormer($id, $round, $top, $thickness ?? self::DORMER_MM);
                    }
                    break;
                default:
            }
        }

        $stairs = array_map(
            static fn (Stair $s): CoreStair => $s->stands($isAlone),
            $this->entities->getRepository(Stair::class)->findBy(['project' => $row->project(), 'storey' => $row->id()], ['id' => 'ASC']),
        );

        $sweeps = $this->sweeps->of($row);

        return $storey->built($floors, $ceilings, $voids, $roofs, $shafts, $dormers, $objects, $this->surfaces($row), $stairs, $sweeps);
    }

    /** @return list<CoreSurface> */
    private function surfaces(Storey $row): array
    {
        /** @var list<Surface> $rows */
        $rows = $this->entities->createQuery(
            'SELECT r FROM '.Surface::class.' r WHERE r.project = :project AND ('.Surface::onStorey().') ORDER BY r.id',
        )->setParameter('project', $row->project(), UuidType::NAME)->setParameter('storey', $row->id(), UuidType::NAME)->getResult();

        return array_map(static fn (Surface $s): CoreSurface => $s->finished(), $rows);
    }
}
