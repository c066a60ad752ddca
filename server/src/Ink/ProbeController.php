<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Walls\WallUnder;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\InkController;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** The drawn wall under a click. */
final readonly class ProbeController
{
    public function __construct(private ProjectAccess $access, private Findings $findings, private BuildUps $buildUps)
    {
    }

    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/drawings/{id}/probe', methods: ['GET'])]
    public function show(Uuid $project, Uuid $id, Request $request): Response
    {
        $drawing = $this->access->row(Drawing::class, $project, $id);
        $number = InkController::numbers($request);
        $ink = $this->findings->inkOf($drawing);
        $wall = WallUnder::at($ink, $this->findings->fit($drawing)->pixelToMm(), new Point($number('x'), $number('y')));

        return new JsonResponse(['found' => null === $wall ? null : [
            'from' => $wall->from->toArray(), 'to' => $wall->to->toArray(), 'thickness' => $wall->thickness, 'plusMinusMm' => 2.0 * $wall->thicknessSigma, 'offPlusMinusMm' => 2.0 * $wall->centreSigma,
            'buildUp' => $this->buildUps->likeliest($drawing->project(), $wall->thickness, 2.0 * $wall->thicknessSigma),
        ]]);
    }
}
