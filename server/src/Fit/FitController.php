<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Source\Drawing;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

#[Route('/api/projects/{project}/drawings/{id}')]
final readonly class FitController
{
    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities, private FitReport $reports, private FitHistory $history, private Flatness $flatness)
    {
    }

    /** ± over the page. */
    #[Needs(Who::Reader)]
    #[Route('/spread', methods: ['GET'])]
    public function spread(Uuid $project, Uuid $id): Response
    {
        $drawing = $this->access->row(Drawing::class, $project, $id);
        $fit = $this->entities->find(DrawingFit::class, $drawing->key()->criteria()) ?? throw Refusal::notFound();

        return new JsonResponse($this->reports->spread($fit, $drawing));
    }

    /** Whether the lines that were picked as straight are straight on the page. */
    #[Needs(Who::Reader)]
    #[Route('/flatness', methods: ['GET'])]
    public function flatness(Uuid $project, Uuid $id): Response
    {
        return new JsonResponse($this->flatness->of($this->access->row(Drawing::class, $project, $id)));
    }

    /** The fits it has had. */
    #[Needs(Who::Reader)]
    #[Route('/fits', methods: ['GET'])]
    public function fits(Uuid $project, Uuid $id): Response
    {
        return new JsonResponse(['fits' => $this->history->of($this->access->row(Drawing::class, $project, $id))]);
    }
}
