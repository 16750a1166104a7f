<?php

declare(strict_types=1);

namespace App\Job;

use Doctrine\DBAL\Exception as DatabaseFault;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Messenger\Event\WorkerRunningEvent;

/** A worker with nothing to do looks after jobs that were left behind, every few seconds. */
#[AsEventListener]
final class IdleWorker
{
    private const SECONDS_BETWEEN_LOOKS = 2;

    private int $looked = 0;

    public function __construct(private readonly Jobs $jobs)
    {
    }

    public function __invoke(WorkerRunningEvent $event): void
    {
        if (!$event->isWorkerIdle() || time() - $this->looked < self::SECONDS_BETWEEN_LOOKS) {
            return;
        }
        $this->looked = time();
        try {
            $this->jobs->takeUpAgain(RunJobHandler::worker());
        } catch (DatabaseFault) {
            // Busy: the next look comes soon.
        }
    }
}
