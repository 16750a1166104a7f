<?php

declare(strict_types=1);

// The tracing JIT of PHP 8.2 computes wrong numbers in this code (docs/numerics.md). bin/mensura starts PHP with the
// function JIT; where PHP is started by something else, a server's pool say, whatever its settings chose is put right here.
if (function_exists('opcache_get_status') && (int) ini_get('opcache.jit_buffer_size') > 0) {
    @ini_set('opcache.jit', 'off' === getenv('MENSURA_JIT') ? 'off' : 'function');
}
