<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Picks\Gap;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\InkController;
use Plinth\Server\Source\InkOfPages;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** The opening that a drawing's ink shows in a traced wall. */
final readonly class GapController
{
    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities, private InkOfPages $ink)
    {
    }

    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/drawings/{id}/gap', methods: ['GET'])]
    public function show(Uuid $project, Uuid $id, Request $request): Response
    {
        $drawing = $this->access->row(Drawing::class, $project, $id);
        $wall = $this->access->row(Wall::class, $project, RowValues::uuid(JsonValue::of($request->query->get('wall'), 'wall')));
        $number = InkController::numbers($request);
        $ink = $this->ink->of($drawing) ?? throw Refusal::conflict(
            'not-ready',
            'This page is still being read: its ink cannot be looked at yet.',
        );
        $fit = $this->entities->find(DrawingFit::class, $drawing->key()->criteria()) ?? throw Refusal::notFound();
        $from = $this->entities->find(Node::class, $wall->beside($wall->fromNode())->criteria()) ?? throw Refusal::notFound();
        $to = $this->entities->find(Node::class, $wall->beside($wall->toNode())->criteria()) ?? throw Refusal::notFound();
        $gap = Gap::around($ink, $fit->pixelToMm(), $from->at(), $to->at(), $wall->thickness(), new Point($number('x'), $number('y')));

        return new JsonResponse(['found' => null === $gap ? null : [
            'kind' => $gap->lined ? 'window' : (null === $gap->leafSide ? 'opening' : 'door'),
            'offset' => $gap->from, 'width' => $gap->width, 'plusMinusMm' => 2.0 * $gap->sigmaMm, 'leafAt' => $gap->leafAt, 'leafSide' => $gap->leafSide,
        ]]);
    }
}
