<?php

declare(strict_types=1);

// The simulated reference stations as an HTTP service: php -S 127.0.0.1:8090 demo/service.php

use Demo\Service\StationService;

require __DIR__.'/../vendor/autoload.php';

$path = (string) parse_url((string) $_SERVER['REQUEST_URI'], \PHP_URL_PATH);
[$status, $type, $body] = (new StationService(microtime(true)))->answer(
    (string) $_SERVER['REQUEST_METHOD'], $path, array_filter($_GET, is_string(...)), (string) file_get_contents('php://input'),
);
http_response_code($status);
header("Content-Type: $type");
echo $body;
