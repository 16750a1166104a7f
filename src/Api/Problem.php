<?php

declare(strict_types=1);

namespace App\Api;

use Symfony\Component\HttpFoundation\JsonResponse;

/** Problem details (RFC 9457) with a pointer to the offending field where there is one. */
final class Problem
{
    /** @param list<array{pointer: string, detail: string}> $errors */
    public static function response(int $status, string $title, string $detail, array $errors = []): JsonResponse
    {
        $body = ['type' => 'about:blank', 'title' => $title, 'status' => $status, 'detail' => $detail];
        if ([] !== $errors) {
            $body['errors'] = $errors;
        }

        return new JsonResponse($body, $status, ['Content-Type' => 'application/problem+json']);
    }
}
