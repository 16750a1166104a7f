<?php

declare(strict_types=1);

namespace App\Api;

use App\Ledger\LaterChange;
use App\Ledger\NoSuchEntry;
use Mensura\Fault\UnusableInput;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\ExceptionEvent;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;
use Symfony\Component\Security\Core\Exception\AccessDeniedException;
use Symfony\Component\Validator\Exception\ValidationFailedException;

/** Turns what goes wrong under /api into problem details. */
#[AsEventListener(priority: 2)]
final class Faults
{
    public function __invoke(ExceptionEvent $event): void
    {
        if (!str_starts_with($event->getRequest()->getPathInfo(), '/api')) {
            return;
        }
        $e = $event->getThrowable();
        $cause = $e->getPrevious();
        $response = match (true) {
            $cause instanceof ValidationFailedException => self::invalid($cause),
            $e instanceof ValidationFailedException => self::invalid($e),
            $e instanceof UnusableInput => Problem::response(422, 'This cannot be used.', $e->getMessage(), '' === $e->where ? [] : [['pointer' => $e->where, 'detail' => $e->reason]]),
            // What core cannot compute for lack of a grid, a projection's reach or a meaning is bad input wherever it surfaces.
            $e instanceof \DomainException => Problem::response(422, 'This cannot be computed.', $e->getMessage()),
            $e instanceof LaterChange => Problem::response(409, 'This cannot be undone alone.', $e->getMessage()),
            $e instanceof NoSuchEntry => Problem::response(404, 'Not found.', $e->getMessage()),
            $e instanceof HttpExceptionInterface && $e->getStatusCode() < 500 => Problem::response($e->getStatusCode(), self::title($e->getStatusCode()), '' === $e->getMessage() ? 'The request cannot be answered as it is.' : $e->getMessage()),
            $e instanceof AccessDeniedException && null === $event->getRequest()->getUser() => null,
            default => null,
        };
        if (null !== $response) {
            $event->setResponse($response);
        }
    }

    private static function invalid(ValidationFailedException $e): \Symfony\Component\HttpFoundation\JsonResponse
    {
        $errors = [];
        foreach ($e->getViolations() as $violation) {
            $errors[] = ['pointer' => '/'.strtr($violation->getPropertyPath(), ['.' => '/', '[' => '/', ']' => '']), 'detail' => (string) $violation->getMessage()];
        }

        return Problem::response(422, 'Some fields need another value.', implode(' ', array_map(static fn (array $x): string => trim($x['pointer'], '/').': '.$x['detail'], $errors)), $errors);
    }

    private static function title(int $status): string
    {
        return match ($status) {
            403 => 'Your role in this project does not allow this.',
            404 => 'Not found.',
            413 => 'Too large.',
            default => 'This request is not understood.',
        };
    }
}
