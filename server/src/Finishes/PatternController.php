<?php

declare(strict_types=1);

namespace Plinth\Server\Finishes;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Plan\Model\Finish;
use Plinth\Core\Plan\Model\FinishPattern;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;

/** What repeats of a pattern, so that it is drawn alike wherever it lies. */
final readonly class PatternController
{
    #[Needs(Who::SignedIn)]
    #[Route('/api/pattern', methods: ['GET'])]
    public function repeat(Request $request): Response
    {
        $value = static function (string $key) use ($request): JsonValue {
            $text = $request->query->getString($key);

            return JsonValue::of(is_numeric($text) ? (float) $text : $text, $key);
        };
        $pattern = $value('pattern')->choice(FinishPattern::class);
        if (FinishPattern::Plain === $pattern) {
            return new JsonResponse(['size' => [1000.0, 1000.0], 'pieces' => []]);
        }
        $height = $value('height');
        $finish = new Finish(
            'of the pattern',
            '',
            '#000000',
            $pattern,
            $value('width')->positive(Finish::LARGEST_MM),
            FinishPattern::Tiles === $pattern ? $height->positive(Finish::LARGEST_MM) : $height->notNegative(),
            $value('joint')->notNegative(),
            $value('bond')->word(array_keys(Finish::BONDS)),
        );

        return new JsonResponse($finish->repeat());
    }
}
