<?php

declare(strict_types=1);

// Entry of the batch verbs. They need nothing but PHP: no packages, no set-up.

require __DIR__.'/../config/jit.php';

spl_autoload_register(static function (string $class): void {
    foreach (['Mensura\\' => __DIR__.'/../core/src/', 'Batch\\' => __DIR__.'/'] as $prefix => $folder) {
        if (str_starts_with($class, $prefix)) {
            require $folder.strtr(substr($class, strlen($prefix)), '\\', '/').'.php';
        }
    }
});
ini_set('precision', '17');
ini_set('serialize_precision', '-1');

exit(Batch\Command::run(array_slice($argv, 1), \STDOUT, \STDERR));
