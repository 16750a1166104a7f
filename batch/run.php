<?php

declare(strict_types=1);

// Entry of the batch verbs: the computation alone, without the application.

require __DIR__.'/../config/jit.php';
require __DIR__.'/../vendor/autoload.php';

ini_set('precision', '17');
ini_set('serialize_precision', '-1');

exit((new Batch\Verbs(\STDOUT, \STDERR))->call(array_slice($argv, 1)));
