<?php

declare(strict_types=1);

namespace Plinth\Server\Elevation;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Elevation\Exception\UnusableOutline;
use Plinth\Core\Elevation\Outline as CoreOutline;
use Plinth\Core\Elevation\SideLine;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Plan\BuildingOutlines;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\Side;
use Plinth\Server\Project\Storey;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** What stands on a side: outlines that were traced, and the corners of the plan that it shows. */
final readonly class ElevationController
{
    public function __construct(
        private ProjectAccess $access,
        private EntityManagerInterface $entities,
        private BuildingOutlines $outlines,
    ) {
    }

    /** What an outline encloses. */
    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/outlines/{id}', methods: ['GET'])]
    public function outline(Uuid $project, Uuid $id): Response
    {
        $outline = $this->access->row(Outline::class, $project, $id);
        $corners = $this->entities->getRepository(OutlineCorner::class)->findBy(
            ['project' => $outline->project(), 'outline' => $outline->id()],
            ['order' => 'ASC', 'id' => 'ASC'],
        );
        try {
            $round = CoreOutline::round(
                array_map(static fn (OutlineCorner $c): Point => $c->at(), $corners),
                array_map(static fn (OutlineCorner $c): float => $c->rise(), $corners),
            );
        } catch (UnusableOutline $e) {
            return new JsonResponse(['areaM2' => null, 'widthMm' => null, 'heightMm' => null, 'refusal' => $e->getMessage()]);
        }

        return new JsonResponse([
            'areaM2' => $round->areaM2(),
            'widthMm' => $round->width(),
            'heightMm' => $round->height(),
            'refusal' => null,
        ]);
    }

    /** Where the outer corners of what is traced on the storeys lie along a side, from its left end. */
    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/sides/{id}/corners', methods: ['GET'])]
    public function corners(Uuid $project, Uuid $id): Response
    {
        $side = $this->access->row(Side::class, $project, $id);
        $line = SideLine::between(...$side->line());
        $corners = [];
        foreach ($this->entities->getRepository(Storey::class)->findBy(['project' => $side->project()], ['id' => 'ASC']) as $storey) {
            foreach ($this->outlines->of($storey) as $ring) {
                foreach (SideLine::corners(array_map(static fn (array $p): Point => new Point(...$p), $ring)) as $corner) {
                    $corners[] = ['alongMm' => $line->along($corner), 'behindMm' => $line->behind($corner)];
                }
            }
        }

        return new JsonResponse(['lengthMm' => $line->length(), 'corners' => $corners]);
    }
}
