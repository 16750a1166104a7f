<?php

declare(strict_types=1);

namespace App\Api;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\Event\ResponseEvent;
use Symfony\Component\Security\Csrf\CsrfToken;
use Symfony\Component\Security\Csrf\CsrfTokenManagerInterface;

/** The CSRF header and the origin of every unsafe request, text that is text, numbers that are numbers, and the security headers. */
final class Guard
{
    public const HEADER = 'X-Mensura-Token';
    public const TOKEN = 'api';

    private const DEEPEST = 32;

    /** @var array<string, string> */
    private readonly array $headers;

    public function __construct(private readonly CsrfTokenManagerInterface $tokens, #[Autowire('%kernel.project_dir%')] string $root)
    {
        $this->headers = require $root.'/config/headers.php';
    }

    #[AsEventListener(priority: 12)]
    public function request(RequestEvent $event): void
    {
        $request = $event->getRequest();
        if (!$event->isMainRequest() || !str_starts_with($request->getPathInfo(), '/api')) {
            return;
        }
        if (null !== $field = self::notText($request)) {
            $what = ['pointer' => $field, 'detail' => 'is not text in UTF-8'];
            $event->setResponse(Problem::response(400, 'This request is not understood.', $field.': is not text in UTF-8', [$what]));

            return;
        }
        if ($request->isMethodSafe()) {
            return;
        }
        $origin = $request->headers->get('Origin');
        if (null !== $origin && $origin !== $request->getSchemeAndHttpHost()) {
            $event->setResponse(Problem::response(403, 'This came from another page.', 'Only pages of this server may make changes here.'));

            return;
        }
        $token = (string) $request->headers->get(self::HEADER);
        if (!$this->tokens->isTokenValid(new CsrfToken(self::TOKEN, $token))) {
            $detail = 'Reload it and try again; the request did not carry a valid token.';
            $event->setResponse(Problem::response(403, 'This page is out of date.', $detail));

            return;
        }
        if ('json' === $request->getContentTypeFormat()) {
            $this->numbers($event);
        }
    }

    /** A number no float can hold would be read as infinite and pass every check of a range that has no end. */
    private function numbers(RequestEvent $event): void
    {
        $data = json_decode($event->getRequest()->getContent(), true, self::DEEPEST);
        if (\JSON_ERROR_DEPTH === json_last_error()) {
            $event->setResponse(Problem::response(400, 'This request is not understood.', 'The body is nested too deep.'));
        } elseif (null !== $pointer = self::infinite($data, '')) {
            $detail = $pointer.': is not a number that can be kept';
            $errors = [['pointer' => $pointer, 'detail' => 'is not a number that can be kept']];
            $event->setResponse(Problem::response(422, 'Some fields need another value.', $detail, $errors));
        }
    }

    private static function infinite(mixed $data, string $pointer): ?string
    {
        if (\is_float($data)) {
            return is_finite($data) ? null : $pointer;
        }
        foreach (\is_array($data) ? $data : [] as $key => $value) {
            if ((\is_float($value) || \is_array($value)) && null !== $found = self::infinite($value, $pointer.'/'.$key)) {
                return $found;
            }
        }

        return null;
    }

    private static function notText(Request $request): ?string
    {
        if (!mb_check_encoding(rawurldecode($request->getPathInfo()), 'UTF-8')) {
            return '/';
        }
        foreach ($request->query->all() as $key => $value) {
            if (!\is_string($value) || !mb_check_encoding($value, 'UTF-8') || !mb_check_encoding((string) $key, 'UTF-8')) {
                return '/'.mb_scrub((string) $key);
            }
        }

        return 'json' === $request->getContentTypeFormat() && !mb_check_encoding($request->getContent(), 'UTF-8') ? '/' : null;
    }

    #[AsEventListener]
    public function response(ResponseEvent $event): void
    {
        $headers = $event->getResponse()->headers;
        foreach ($this->headers as $name => $value) {
            $headers->set($name, $value);
        }
        if (str_starts_with($event->getRequest()->getPathInfo(), '/api')) {
            $headers->set('Cache-Control', 'no-store');
        }
    }
}
