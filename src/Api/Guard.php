<?php

declare(strict_types=1);

namespace App\Api;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\Event\ResponseEvent;
use Symfony\Component\Security\Csrf\CsrfToken;
use Symfony\Component\Security\Csrf\CsrfTokenManagerInterface;

/** CSRF header on every unsafe request, and the security headers on every answer. */
final class Guard
{
    public const HEADER = 'X-Mensura-Token';
    public const TOKEN = 'api';

    public function __construct(private readonly CsrfTokenManagerInterface $tokens)
    {
    }

    #[AsEventListener(priority: 12)]
    public function request(RequestEvent $event): void
    {
        $request = $event->getRequest();
        if (!$event->isMainRequest() || $request->isMethodSafe() || !str_starts_with($request->getPathInfo(), '/api')) {
            return;
        }
        $token = (string) $request->headers->get(self::HEADER);
        if (!$this->tokens->isTokenValid(new CsrfToken(self::TOKEN, $token))) {
            $event->setResponse(Problem::response(403, 'This page is out of date.', 'Reload it and try again; the request did not carry a valid token.'));
        }
    }

    #[AsEventListener]
    public function response(ResponseEvent $event): void
    {
        $headers = $event->getResponse()->headers;
        $headers->set('Content-Security-Policy', "default-src 'self'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; font-src 'self' data:; worker-src 'self' blob:; frame-ancestors 'none'; base-uri 'self'; form-action 'self'; object-src 'none'");
        $headers->set('X-Content-Type-Options', 'nosniff');
        $headers->set('Referrer-Policy', 'same-origin');
        $headers->set('X-Frame-Options', 'DENY');
        $headers->set('Cross-Origin-Opener-Policy', 'same-origin');
        if (str_starts_with($event->getRequest()->getPathInfo(), '/api')) {
            $headers->set('Cache-Control', 'no-store');
        }
    }
}
