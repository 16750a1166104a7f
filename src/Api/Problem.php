<?php

declare(strict_types=1);

namespace App\Api;

use Symfony\Component\HttpFoundation\JsonResponse;

/** Problem details (RFC 9457) with a pointer to the offending field where there is one. */
final class Problem
{
    /**
     * @param list<array{pointer: string, detail: string}> $errors
     * @param array<string, mixed>                         $more   members of its own that a kind of problem adds
     */
    public static function response(int $status, string $title, string $detail, array $errors = [], array $more = []): JsonResponse
    {
        $body = ['type' => 'about:blank', 'title' => $title, 'status' => $status, 'detail' => mb_scrub($detail)] + $more;
        if ([] !== $errors) {
            $body['errors'] = array_map(static fn (array $e): array => array_map(mb_scrub(...), $e), $errors);
        }
        $response = new JsonResponse($body, $status, ['Content-Type' => 'application/problem+json']);
        if (503 === $status) {
            $response->headers->set('Retry-After', '2');
        }

        return $response;
    }
}
