<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Units\Bearing;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;
use Plinth\Core\Units\Pitch;
use Plinth\Core\Units\TwoLengths;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;

/** Reads a typed length, two of them, a pitch or a bearing, while it is being typed. */
final readonly class LengthController
{
    #[Needs(Who::SignedIn)]
    #[Route('/api/length', methods: ['GET'])]
    public function read(Request $request): Response
    {
        $length = LengthParser::parse(
            JsonValue::of($request->query->get('text', ''), 'text')->text(120),
            JsonValue::of($request->query->get('unit', 'mm'), 'unit')->choice(LengthUnit::class),
        );

        return new JsonResponse(['mm' => $length->mm, 'stepMm' => $length->stepMm]);
    }

    #[Needs(Who::SignedIn)]
    #[Route('/api/lengths', methods: ['GET'])]
    public function two(Request $request): Response
    {
        $both = TwoLengths::parse(
            JsonValue::of($request->query->get('text', ''), 'text')->text(240),
            JsonValue::of($request->query->get('unit', 'mm'), 'unit')->choice(LengthUnit::class),
            'yes' === $request->query->get('mayBeOne'),
        );

        return new JsonResponse(['mm' => [$both->first, $both->second]]);
    }

    #[Needs(Who::SignedIn)]
    #[Route('/api/pitch', methods: ['GET'])]
    public function pitch(Request $request): Response
    {
        return new JsonResponse(['degrees' => Pitch::parse(JsonValue::of($request->query->get('text', ''), 'text')->text(60))->degrees]);
    }

    #[Needs(Who::SignedIn)]
    #[Route('/api/bearing', methods: ['GET'])]
    public function bearing(Request $request): Response
    {
        return new JsonResponse(['degrees' => Bearing::parse(JsonValue::of($request->query->get('text', ''), 'text')->text(60))->degrees]);
    }
}
