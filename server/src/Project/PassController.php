<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/**
 * Says yes or no to who wants to see pictures of a project. The web server asks before it sends them itself, and remembers a yes for some
 * seconds.
 */
final readonly class PassController
{
    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/pass', methods: ['GET'])]
    public function pass(Uuid $project): Response
    {
        return new Response(status: 204);
    }
}
