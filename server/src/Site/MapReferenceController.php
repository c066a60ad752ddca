<?php

declare(strict_types=1);

namespace Plinth\Server\Site;

use Plinth\Core\Site\Exception\UnusableMapPoints;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** Where the plan lies in a map, and how well its points agree. */
final readonly class MapReferenceController
{
    public function __construct(private MapReference $reference)
    {
    }

    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/map-reference', methods: ['GET'])]
    public function show(Uuid $project): Response
    {
        try {
            $told = $this->reference->told($project);
            $refusal = null;
        } catch (Refusal|UnusableMapPoints $e) {
            [$told, $refusal] = [null, $e->getMessage()];
        }

        return new JsonResponse([
            'lies' => null === $told ? null : [
                'reference' => $told[0]->reference, 'east' => $told[0]->east, 'north' => $told[0]->north, 'height' => $told[0]->height,
                'degrees' => $told[0]->degrees, 'scale' => $told[0]->scale,
                'points' => array_map(static fn (string $id, float $mm): array => ['id' => $id, 'offMm' => $mm], array_keys($told[1]), $told[1]),
            ],
            'refusal' => $refusal,
        ]);
    }
}
