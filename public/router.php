<?php

declare(strict_types=1);

// For PHP's own server: files that exist are served as they are, with the headers of every answer and compressed where that
// pays; everything else goes to the application.
$path = rawurldecode((string) parse_url((string) $_SERVER['REQUEST_URI'], \PHP_URL_PATH));
$types = [
    'js' => 'text/javascript; charset=utf-8', 'css' => 'text/css; charset=utf-8', 'json' => 'application/json', 'svg' => 'image/svg+xml',
    'html' => 'text/html; charset=utf-8', 'wasm' => 'application/wasm',
    'woff2' => 'font/woff2', 'woff' => 'font/woff', 'png' => 'image/png', 'ico' => 'image/x-icon',
];
$extension = pathinfo($path, \PATHINFO_EXTENSION);
$file = __DIR__.$path;
if (isset($types[$extension]) && !str_contains($path, '..') && !str_contains($path, "\0") && is_file($file)) {
    foreach (require dirname(__DIR__).'/config/headers.php' as $name => $value) {
        header("$name: $value");
    }
    header('Content-Type: '.$types[$extension]);
    // What the build names by its contents never changes.
    header('Cache-Control: '.(str_starts_with($path, '/build/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache'));
    $contents = (string) file_get_contents($file);
    if (in_array($extension, ['js', 'css', 'json', 'svg', 'html', 'wasm'], true)) {
        header('Vary: Accept-Encoding');
        if (str_contains((string) ($_SERVER['HTTP_ACCEPT_ENCODING'] ?? ''), 'gzip')) {
            $contents = (string) gzencode($contents, 6);
            header('Content-Encoding: gzip');
        }
    }
    header('Content-Length: '.strlen($contents));
    if ('HEAD' !== $_SERVER['REQUEST_METHOD']) {
        echo $contents;
    }

    return true;
}
$_SERVER['SCRIPT_NAME'] = '/index.php';
$_SERVER['SCRIPT_FILENAME'] = __DIR__.'/index.php';
require __DIR__.'/index.php';
