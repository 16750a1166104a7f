<?php

declare(strict_types=1);

namespace App\Job;

final class JobTooLong extends \RuntimeException
{
    public function __construct(int $seconds)
    {
        parent::__construct(\sprintf(
            'This took longer than %d minutes and was ended; nothing was kept of it. Try it with less.',
            intdiv($seconds, 60),
        ));
    }
}
