<?php

declare(strict_types=1);

namespace App\Api;

use Symfony\Component\HttpFoundation\RequestStack;

/** What the page called its request (header Idempotency-Key): sent again under the same name, it is done once. */
final class RequestKey
{
    public const HEADER = 'Idempotency-Key';
    private const LONGEST = 80;

    public function __construct(private readonly RequestStack $requests)
    {
    }

    public function value(): ?string
    {
        $key = $this->requests->getMainRequest()?->headers->get(self::HEADER);

        return null === $key || '' === $key ? null : substr($key, 0, self::LONGEST);
    }
}
