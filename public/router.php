<?php

declare(strict_types=1);

// For PHP's own server: files that exist are served as they are, everything else goes to the application.
$path = parse_url((string) $_SERVER['REQUEST_URI'], \PHP_URL_PATH);
if ('/' !== $path && is_string($path) && !str_ends_with($path, '.php') && !str_contains($path, '..') && is_file(__DIR__.$path)) {
    return false;
}
$_SERVER['SCRIPT_NAME'] = '/index.php';
$_SERVER['SCRIPT_FILENAME'] = __DIR__.'/index.php';
require __DIR__.'/index.php';
