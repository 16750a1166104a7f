<?php

declare(strict_types=1);

use Symfony\Component\Dotenv\Dotenv;

require dirname(__DIR__).'/vendor/autoload.php';

$_SERVER['APP_ENV'] = $_ENV['APP_ENV'] = 'test';
// A file for every request: in memory where there is a disk in it.
if (is_writable('/dev/shm')) {
    $_SERVER['TEST_SESSIONS'] = $_ENV['TEST_SESSIONS'] = $sessions = '/dev/shm/mensura-sessions-'.getmypid();
    register_shutdown_function(static function () use ($sessions): void {
        array_map(unlink(...), glob($sessions.'/*') ?: []);
        @rmdir($sessions);
    });
}
(new Dotenv())->bootEnv(dirname(__DIR__).'/.env');
