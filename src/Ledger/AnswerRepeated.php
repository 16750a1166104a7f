<?php

declare(strict_types=1);

namespace App\Ledger;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Event\ExceptionEvent;

/** A request sent again, because its answer was lost on the way, gets the number of the entry it made. */
#[AsEventListener(priority: 8)]
final class AnswerRepeated
{
    public function __invoke(ExceptionEvent $event): void
    {
        $e = $event->getThrowable();
        if ($e instanceof DoneBefore) {
            $event->allowCustomResponseCode();
            $event->setResponse(new JsonResponse(['seq' => $e->seq, 'repeated' => true], 200));
        }
    }
}
