<?php

declare(strict_types=1);

namespace App\Store;

use Doctrine\DBAL\Driver;
use Doctrine\DBAL\Driver\Connection;
use Doctrine\DBAL\Driver\Middleware;
use Doctrine\DBAL\Driver\Middleware\AbstractDriverMiddleware;

/** Every SQLite connection keeps foreign keys, waits for a busy writer, and logs ahead so that readers never wait. */
final class SqlitePragmas implements Middleware
{
    public function wrap(Driver $driver): Driver
    {
        return new class($driver) extends AbstractDriverMiddleware {
            public function connect(array $params): Connection
            {
                $connection = parent::connect($params);
                foreach (['busy_timeout = 10000', 'journal_mode = WAL', 'synchronous = NORMAL', 'foreign_keys = ON'] as $pragma) {
                    $connection->exec('PRAGMA '.$pragma);
                }

                return $connection;
            }
        };
    }
}
