<?php

declare(strict_types=1);

namespace App\HandOver\Package;

use App\HandOver\Kept\NamedRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends NamedRepository<KeptPackage> */
final class PackageRepository extends NamedRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, KeptPackage::class);
    }
}
