<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\ChangeRequest;
use Plinth\Server\Change\Recorder;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Source\Drawing;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

#[Route('/api/projects/{project}')]
final readonly class FitController
{
    public function __construct(
        private ProjectAccess $access,
        private EntityManagerInterface $entities,
        private FitReport $reports,
        private FitHistory $history,
        private Flatness $flatness,
        private Recorder $recorder,
        private ChangeRequest $requests,
        private Trial $trial,
    ) {
    }

    /** What a change would do to the fits; nothing is kept of it. */
    #[Needs(Who::Editor)]
    #[Route('/try', methods: ['POST'])]
    public function attempt(Uuid $project, Request $request): Response
    {
        $body = JsonValue::parse($request->getContent())->object(['base', 'after', 'operations', 'tracing']);
        $user = $this->access->user();

        return new JsonResponse(
            $this->recorder->attempt(
                $project,
                $user,
                $this->requests->read($project, $user, $body),
                $this->trial->of(...),
                ChangeRequest::occasion($body),
            ),
        );
    }

    /** ± over the page. */
    #[Needs(Who::Reader)]
    #[Route('/drawings/{id}/spread', methods: ['GET'])]
    public function spread(Uuid $project, Uuid $id): Response
    {
        $drawing = $this->access->row(Drawing::class, $project, $id);
        $fit = $this->entities->find(DrawingFit::class, $drawing->key()->criteria()) ?? throw Refusal::notFound();

        return new JsonResponse($this->reports->spread($fit, $drawing));
    }

    /** Whether the lines that were picked as straight are straight on the page. */
    #[Needs(Who::Reader)]
    #[Route('/drawings/{id}/flatness', methods: ['GET'])]
    public function flatness(Uuid $project, Uuid $id): Response
    {
        return new JsonResponse($this->flatness->of($this->access->row(Drawing::class, $project, $id)));
    }

    /** The fits it has had. */
    #[Needs(Who::Reader)]
    #[Route('/drawings/{id}/fits', methods: ['GET'])]
    public function fits(Uuid $project, Uuid $id): Response
    {
        return new JsonResponse(['fits' => $this->history->of($this->access->row(Drawing::class, $project, $id))]);
    }
}
