<?php

declare(strict_types=1);

namespace App\Job\View;

/** A job. State: queued, running, done, failed or cancelled. Progress 0 to 1. */
final readonly class JobView
{
    /**
     * @param ?array<string, mixed> $outcome
     */
    public function __construct(
        public string $id,
        public string $kind,
        public string $title,
        public string $state,
        public string $stage,
        public float $progress,
        public ?string $error,
        public ?float $secondsLeft,
        public ?array $outcome,
    ) {
    }
}
