<?php

declare(strict_types=1);

namespace App\Reference;

use Doctrine\Persistence\ManagerRegistry;

/** @extends KeptRepository<KeptLocalization> */
final class LocalizationRepository extends KeptRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, KeptLocalization::class);
    }
}
