<?php

declare(strict_types=1);

namespace App\Reference;

use Doctrine\Persistence\ManagerRegistry;

/** @extends KeptRepository<GridFile> */
final class GridFileRepository extends KeptRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, GridFile::class);
    }
}
