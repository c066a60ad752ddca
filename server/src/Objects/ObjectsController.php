<?php

declare(strict_types=1);

namespace Plinth\Server\Objects;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Objects\ObjectForm;
use Plinth\Core\Objects\ObjectKind;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;

/** What things that stand in rooms usually measure, and how they look. */
final readonly class ObjectsController
{
    #[Needs(Who::SignedIn)]
    #[Route('/api/objects', methods: ['GET'])]
    public function kinds(): Response
    {
        return new JsonResponse(['kinds' => array_map(static function (ObjectKind $kind): array {
            [$width, $depth, $height, $base] = $kind->usual();

            return ['kind' => $kind->value, 'width' => $width, 'depth' => $depth, 'height' => $height, 'base' => $base];
        }, ObjectKind::cases())]);
    }

    /** From above and from the front, about its middle. */
    #[Needs(Who::SignedIn)]
    #[Route('/api/object', methods: ['GET'])]
    public function form(Request $request): Response
    {
        $size = static function (string $key) use ($request): float {
            $text = $request->query->getString($key);

            return JsonValue::of(is_numeric($text) ? (float) $text : $text, $key)->positive(20_000.0);
        };
        $kind = JsonValue::of($request->query->get('kind', ''), 'kind')->choice(ObjectKind::class);
        $form = new ObjectForm($kind, $size('width'), $size('depth'), $size('height'));

        return new JsonResponse(['plan' => $form->plan(), 'front' => $form->front()]);
    }
}
