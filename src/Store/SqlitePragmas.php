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
    /** SQL function: a float of its shortest decimal text, to the last bit, which SQLite's own reading of text does not promise. */
    public const EXACT = 'exact_real';

    /** @param int $busyMilliseconds how long a writer waits for another */
    public function __construct(private readonly int $busyMilliseconds)
    {
    }

    public function wrap(Driver $driver): Driver
    {
        return new class($driver, $this->busyMilliseconds) extends AbstractDriverMiddleware {
            public function __construct(Driver $driver, private readonly int $busyMilliseconds)
            {
                parent::__construct($driver);
            }

            public function connect(array $params): Connection
            {
                $connection = parent::connect($params);
                // 64 MB of pages: rows of a large project are not read from the file again within one operation.
                $kept = ['journal_mode = WAL', 'synchronous = NORMAL', 'foreign_keys = ON', 'cache_size = -65536'];
                foreach (['busy_timeout = '.$this->busyMilliseconds, ...$kept] as $pragma) {
                    $connection->exec('PRAGMA '.$pragma);
                }

                $pdo = $connection->getNativeConnection();
                if ($pdo instanceof \PDO) {
                    $pdo->sqliteCreateFunction(
                        SqlitePragmas::EXACT,
                        static fn (?string $text): ?float => null === $text ? null : (float) $text,
                        1,
                    );
                }

                return $connection;
            }
        };
    }
}
