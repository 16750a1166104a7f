<?php

declare(strict_types=1);

namespace App\Job;

/**
 * Work that no signal interrupts: what the function JIT of PHP 8.2 has compiled goes on with wrong numbers after a handler has run in the
 * middle of it (docs/numerics.md). Signals wait until the work is done.
 */
final class Undisturbed
{
    /** @param \Closure(): void $work */
    public static function during(\Closure $work): void
    {
        if (!\function_exists('pcntl_async_signals')) {
            $work();

            return;
        }
        $before = pcntl_async_signals(false);
        try {
            $work();
        } finally {
            pcntl_async_signals($before);
            pcntl_signal_dispatch();
        }
    }
}
