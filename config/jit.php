<?php

declare(strict_types=1);

// The tracing JIT of PHP 8.2 computes wrong numbers in this code (docs/numerics.md). bin/mensura starts PHP with the
// function JIT or none; where something else starts it, a server's pool say, a JIT that is on becomes the function JIT.
if (!in_array(strtolower((string) ini_get('opcache.jit')), ['', '0', 'off', 'no', 'false', 'disable'], true)) {
    @ini_set('opcache.jit', 'off' === getenv('MENSURA_JIT') ? 'off' : 'function');
}
