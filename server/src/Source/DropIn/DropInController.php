<?php

declare(strict_types=1);

namespace Plinth\Server\Source\DropIn;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Write;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\ProjectState;
use Plinth\Server\Source\BringIn;
use Plinth\Server\Source\Delivery;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** What lies in the drop-in folder, and taking it into a project. */
final readonly class DropInController
{
    public function __construct(private ProjectAccess $access, private ProjectState $state, private DropInFolder $folder, private BringIn $bringIn, private MessageBusInterface $bus, private bool $demo)
    {
    }

    #[Route('/api/drop-in', methods: ['GET'])]
    public function waiting(): Response
    {
        $this->access->user();

        return new JsonResponse(['files' => $this->folder->waiting(), 'scanner' => $this->demo]);
    }

    /** The simulated scanner of the demo scans its next page. */
    #[Write]
    #[Route('/api/drop-in/scan', methods: ['POST'])]
    public function scan(): Response
    {
        $this->access->user();
        if (!$this->demo) {
            throw Refusal::notFound();
        }
        $this->bus->dispatch(new ScanPage());

        return new Response(status: 204);
    }

    #[Write]
    #[Route('/api/projects/{id}/drop-in', methods: ['POST'])]
    public function take(Uuid $id, Request $request): Response
    {
        $this->access->writable($id);
        $body = JsonValue::parse($request->getContent())->object(['name', 'change', 'storey', 'side']);
        $name = $body->get('name')->text();
        $place = static fn (string $key): ?Uuid => null === ($value = $body->optional($key)) ? null : RowValues::uuid($value);
        $change = $this->bringIn->take(
            $id, $this->access->user(), new Delivery($this->folder->path($name), $name, $place('storey'), $place('side'), origin: 'drop-in folder'), RowValues::uuid($body->get('change')),
        );
        $this->folder->done($name);

        return $this->state->since($this->access->project($id), $this->access->user(), $change->revision() - 1, $change);
    }
}
