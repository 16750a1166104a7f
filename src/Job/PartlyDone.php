<?php

declare(strict_types=1);

namespace App\Job;

use Mensura\Fault\UnusableInput;

/** A job of several steps that failed after some of them were stored; says which. */
final class PartlyDone extends \RuntimeException
{
    /** @param list<string> $done what was stored, in words */
    public function __construct(array $done, string $failed, \Throwable $cause)
    {
        $reason = $cause instanceof UnusableInput ? $cause->getMessage() : 'it failed';
        parent::__construct(\sprintf('%s: %s. Done before: %s.', $failed, rtrim($reason, '.'), implode(', ', $done)), 0, $cause);
    }

    public function isOurs(): bool
    {
        return !$this->getPrevious() instanceof UnusableInput;
    }
}
