<?php

declare(strict_types=1);

namespace App\Api;

use App\Store\StoreFault;
use Doctrine\DBAL\Exception\LockWaitTimeoutException;
use Mensura\Fault\UnusableInput;
use Psr\Log\LoggerInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Event\ExceptionEvent;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;
use Symfony\Component\Security\Core\Exception\AccessDeniedException;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Symfony\Component\Validator\ConstraintViolationInterface;
use Symfony\Component\Validator\Exception\ValidationFailedException;

/** Turns what goes wrong under /api into problem details; nothing there ends in a page. */
#[AsEventListener(priority: 2)]
final class Faults
{
    public function __construct(private readonly LoggerInterface $logger)
    {
    }

    public function __invoke(ExceptionEvent $event): void
    {
        if (!str_starts_with($event->getRequest()->getPathInfo(), '/api')) {
            return;
        }
        $e = $event->getThrowable();
        if ($e instanceof AccessDeniedException || $e instanceof AuthenticationException) {
            return; // the firewall answers
        }
        $event->setResponse($this->problem($e));
    }

    private function problem(\Throwable $e): JsonResponse
    {
        $cause = $e->getPrevious();
        $code = $e instanceof HttpExceptionInterface ? $e->getStatusCode() : 500;

        return match (true) {
            $cause instanceof ValidationFailedException => self::invalid($cause),
            $e instanceof ValidationFailedException => self::invalid($e),
            $e instanceof Refusal => Problem::response($e->status(), $e->title(), $e->getMessage(), [], $e->more()),
            $e instanceof UnusableInput => Problem::response(
                422, 'This cannot be used.', $e->getMessage(), '' === $e->where ? [] : [['pointer' => $e->where, 'detail' => $e->reason]],
            ),
            // What core cannot compute for lack of a grid, a projection's reach or a meaning is bad input wherever it surfaces.
            $e instanceof \DomainException => Problem::response(422, 'This cannot be computed.', $e->getMessage()),
            $e instanceof LockWaitTimeoutException => Problem::response(
                503, 'The office is busy.', 'Something long is being stored just now; nothing was changed. Try again in a moment.',
            ),
            $e instanceof StoreFault => $this->logged($e, 507, 'The file store failed.', $e->getMessage()),
            $code < 500 => Problem::response($code, self::title($code), self::words($e)),
            default => $this->logged($e, 500, 'This is a defect of ours.', 'It is in the log; nothing was changed.'),
        };
    }

    private function logged(\Throwable $e, int $status, string $title, string $detail): JsonResponse
    {
        $this->logger->critical($e->getMessage(), ['exception' => $e]);

        return Problem::response($status, $title, $detail);
    }

    private static function words(\Throwable $e): string
    {
        return match (true) {
            '' === $e->getMessage() => 'The request cannot be answered as it is.',
            // The router's own words name the address and nothing else.
            str_starts_with($e->getMessage(), 'No route found') => 'There is nothing at this address.',
            default => $e->getMessage(),
        };
    }

    private static function invalid(ValidationFailedException $e): JsonResponse
    {
        $errors = array_map(static fn (ConstraintViolationInterface $v): array => [
            'pointer' => '/'.strtr($v->getPropertyPath(), ['.' => '/', '[' => '/', ']' => '']), 'detail' => (string) $v->getMessage(),
        ], array_values(iterator_to_array($e->getViolations())));
        $words = array_map(static fn (array $x): string => trim($x['pointer'], '/').': '.$x['detail'], $errors);

        return Problem::response(422, 'Some fields need another value.', implode(' ', $words), $errors);
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
