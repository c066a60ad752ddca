<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** An open page says where it is, as long as it is. */
#[Route('/api/projects/{project}/presence/{page}')]
final readonly class PresenceController
{
    public function __construct(private ProjectAccess $access, private WhoIsThere $who)
    {
    }

    #[Needs(Who::Reader)]
    #[Route('', methods: ['PUT'])]
    public function here(Uuid $project, Uuid $page, Request $request): Response
    {
        $body = JsonValue::parse($request->getContent())->object(['place']);
        $place = null === $body->optional('place') ? null : RowValues::uuid($body->get('place'));
        $this->who->note($project, $page, $this->access->user(), $place);

        return new JsonResponse(['page' => $page->toRfc4122()]);
    }

    #[Needs(Who::Reader)]
    #[Route('', methods: ['DELETE'])]
    public function gone(Uuid $project, Uuid $page): Response
    {
        $this->who->leave($project, $page);

        return new JsonResponse(['page' => $page->toRfc4122()]);
    }
}
