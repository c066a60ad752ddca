<?php

declare(strict_types=1);

namespace Plinth\Server\Drafting;

use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** What lines that were drawn measure. */
final readonly class DraftingController
{
    public function __construct(private ProjectAccess $access)
    {
    }

    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/drawn-lines/{id}', methods: ['GET'])]
    public function line(Uuid $project, Uuid $id): Response
    {
        $line = $this->access->row(DrawnLine::class, $project, $id)->drawn();
        $contour = $line->contour();

        return new JsonResponse([
            'lengthMm' => $line->length(),
            'areaM2' => null === $contour ? null : abs($contour->area()) / 1e6,
        ]);
    }
}
