<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Plan\Model\Opening as CoreOpening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Plausibility\Plausible;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Source\InkController;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;

/** Whether an opening that is about to be made would be unusually wide or narrow. */
final readonly class OpeningWidthController
{
    #[Needs(Who::SignedIn)]
    #[Route('/api/opening-width', methods: ['GET'])]
    public function show(Request $request): Response
    {
        $kind = JsonValue::of($request->query->get('kind'), 'kind')->choice(OpeningKind::class);
        $leaf = JsonValue::of($request->query->get('leaf'), 'leaf')->word(CoreOpening::LEAVES);

        return new JsonResponse(['doubt' => Plausible::width($kind, $leaf, InkController::numbers($request)('width'))['message'] ?? null]);
    }
}
