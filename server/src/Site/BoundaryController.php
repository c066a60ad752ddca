<?php

declare(strict_types=1);

namespace Plinth\Server\Site;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Site\Exception\UnusableBoundary;
use Plinth\Core\Site\Leg;
use Plinth\Core\Site\Mistyped;
use Plinth\Core\Site\Traverse;
use Plinth\Core\Units\Bearing;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** Where a boundary runs, how it closes, and what it encloses. */
#[Route('/api/projects/{project}/boundaries/{id}')]
final readonly class BoundaryController
{
    public function __construct(private ProjectAccess $access, private Legs $legs)
    {
    }

    #[Needs(Who::Reader)]
    #[Route('', methods: ['GET'])]
    public function show(Uuid $project, Uuid $id): Response
    {
        $boundary = $this->access->row(Boundary::class, $project, $id);
        $legs = $this->legs->of($boundary);
        $measured = $this->legs->measured($boundary);
        $isTested = \count($measured) === \count($legs);
        $points = static fn (Point ...$points): array => array_map(static fn (Point $p): array => $p->toArray(), array_values($points));
        $answer = [
            'path' => $points(...Traverse::path($legs, $boundary->from())),
            'rises' => array_map(static fn (Leg $l): float => $l->rise, $legs),
            'upDegrees' => $boundary->upDegrees(),
            'closed' => null,
            'mistyped' => array_map(static fn (Mistyped $m): array => [
                'leg' => $m->leg,
                'mm' => $m->mm,
                'bearing' => $m->bearing?->turned($boundary->upDegrees())->written(),
                'leavesMm' => $m->leavesMm,
            ], Mistyped::of($legs)),
            'closing' => null,
            'refusal' => null,
        ];
        try {
            $traverse = Traverse::closed($legs, $boundary->from());
            $answer['closed'] = [
                'corners' => $points(...$traverse->contour->corners),
                'rises' => $traverse->contour->rises,
                'lengthMm' => $traverse->lengthMm,
                'misclosureMm' => $traverse->misclosureMm(),
                'precision' => $traverse->precision(),
                'tested' => $isTested,
                'areaM2' => $traverse->areaM2(),
            ];
        } catch (UnusableBoundary $e) {
            $answer['refusal'] = $e->getMessage();
        }
        if (\count($measured) >= 2 && (null === $answer['closed'] || !$isTested)) {
            [$mm, $degrees] = Traverse::missing($measured);
            $bearing = Bearing::along(sin(deg2rad($degrees)), cos(deg2rad($degrees)));
            $answer['closing'] = ['mm' => $mm, 'bearing' => $bearing->turned($boundary->upDegrees())->written()];
        }

        return new JsonResponse($answer);
    }
}
