<?php

declare(strict_types=1);

namespace Plinth\Server\Stairs;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Picks\DrawnRisers;
use Plinth\Core\Plan\Model\Stair as CoreStair;
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

/** The risers that a drawing's ink shows along a flight. */
final readonly class RisersController
{
    /** A flight is no longer than this, mm: what is looked at of a page is bounded. */
    private const LONGEST_MM = 30_000.0;

    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities, private InkOfPages $ink)
    {
    }

    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/drawings/{id}/risers', methods: ['GET'])]
    public function show(Uuid $project, Uuid $id, Request $request): Response
    {
        $drawing = $this->access->row(Drawing::class, $project, $id);
        $number = InkController::numbers($request);
        [$from, $to, $width] = [new Point($number('ax'), $number('ay')), new Point($number('bx'), $number('by')), $number('width')];
        if ($from->distanceTo($to) > self::LONGEST_MM || $width <= 0.0 || $width > CoreStair::WIDEST_MM) {
            throw Refusal::invalid('no-flight', 'A flight is at most 30 m long and 20 m wide.', 'width');
        }
        $ink = $this->ink->of($drawing) ?? throw Refusal::conflict(
            'not-ready',
            'This page is still being read: its ink cannot be looked at yet.',
        );
        $fit = $this->entities->find(DrawingFit::class, $drawing->key()->criteria()) ?? throw Refusal::notFound();
        $found = DrawnRisers::between($ink, $fit->pixelToMm(), $from, $to, $width);

        return new JsonResponse(['found' => null === $found ? null : [
            'risers' => $found->count, 'goingMm' => $found->going(), 'from' => $found->from->toArray(), 'to' => $found->to->toArray(),
        ]]);
    }
}
