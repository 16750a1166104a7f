<?php

declare(strict_types=1);

namespace App\Network;

use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Ledger\Recompute;
use App\Ledger\Results;
use App\Store\FileStore;
use Doctrine\DBAL\Connection;

final class AcceptAgain implements Recompute
{
    public function __construct(
        private readonly Connection $connection,
        private readonly Results $results,
        private readonly FileStore $store,
        private readonly Ledger $ledger,
    ) {
    }

    public static function kind(): string
    {
        return AcceptCoordinates::KIND;
    }

    public function again(JobContext $context, array $row): void
    {
        $this->ledger->carryOut($context->project, $context->authorName, new AcceptCoordinates($this->connection, $this->results, $this->store));
    }
}
