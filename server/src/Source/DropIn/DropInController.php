<?php

declare(strict_types=1);

namespace Plinth\Server\Source\DropIn;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\RowId;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Job\Jobs;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Source\Arrivals;
use Plinth\Server\Source\Delivery;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Symfony\Component\Uid\UuidV7;

/** What lies in the drop-in folder, and taking it into a project. */
final readonly class DropInController
{
    public function __construct(
        private ProjectAccess $access,
        private DropInFolder $folder,
        private Arrivals $arrivals,
        private Jobs $jobs,
        private bool $demo,
    ) {
    }

    #[Needs(Who::SignedIn)]
    #[Route('/api/drop-in', methods: ['GET'])]
    public function waiting(): Response
    {
        return new JsonResponse(['files' => $this->folder->waiting(), 'scanner' => $this->demo]);
    }

    /** The simulated scanner of the demo scans its next page. */
    #[Needs(Who::SignedIn)]
    #[Route('/api/drop-in/scan', methods: ['POST'])]
    public function scan(): Response
    {
        if (!$this->demo) {
            throw Refusal::notFound();
        }
        // About nobody's project: whoever asks is served in turn.
        $this->jobs->ask(ScanPage::class, new RowId($this->access->user()->id(), new UuidV7()));

        return new Response(status: 204);
    }

    #[Needs(Who::Editor)]
    #[Route('/api/projects/{project}/drop-in', methods: ['POST'])]
    public function take(Uuid $project, Request $request): Response
    {
        $body = JsonValue::parse($request->getContent())->object(['name', 'change', 'storey', 'side']);
        $name = $body->get('name')->text();
        $place = static fn (string $key): ?Uuid => null === ($value = $body->optional($key)) ? null : RowValues::uuid($value);
        $delivery = new Delivery($this->folder->path($name), $name, $place('storey'), $place('side'), origin: 'drop-in folder');

        return $this->arrivals->answer(
            $this->arrivals->fromDropIn($project, RowValues::uuid($body->get('change')), $this->access->user(), $name, $delivery),
            202,
        );
    }
}
