<?php

declare(strict_types=1);

namespace Plinth\Server\Http;

use Symfony\Component\HttpFoundation\JsonResponse;

/** Every error answer has one form: a stable code, words, and where in the request it arose. */
final class ErrorAnswer
{
    /** @param array<string, mixed> $more beside the error */
    public static function of(int $status, string $code, string $message, string $at = '', array $more = []): JsonResponse
    {
        $answer = new JsonResponse(['error' => ['code' => $code, 'message' => $message, 'at' => $at]] + $more, $status);
        $answer->setEncodingOptions(\JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES);

        return $answer;
    }
}
