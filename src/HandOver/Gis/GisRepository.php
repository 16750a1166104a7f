<?php

declare(strict_types=1);

namespace App\HandOver\Gis;

use App\HandOver\Kept\NamedRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends NamedRepository<KeptGis> */
final class GisRepository extends NamedRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, KeptGis::class);
    }
}
