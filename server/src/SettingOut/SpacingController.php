<?php

declare(strict_types=1);

namespace Plinth\Server\SettingOut;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Units\LengthUnit;
use Plinth\Core\Units\Spacings;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;

/** Reads spacings of a setting-out grid while they are being typed. */
final readonly class SpacingController
{
    #[Needs(Who::SignedIn)]
    #[Route('/api/spacings', methods: ['GET'])]
    public function read(Request $request): Response
    {
        $query = $request->query;
        $places = Spacings::parse(
            JsonValue::of($query->get('text', ''), 'text')->text(200),
            JsonValue::of($query->get('unit', 'mm'), 'unit')->choice(LengthUnit::class),
        )->mm;

        return new JsonResponse([
            'places' => $places,
            'labels' => Spacings::labels(JsonValue::of($query->get('first', 'A'), 'first')->text(10), \count($places)),
        ]);
    }
}
