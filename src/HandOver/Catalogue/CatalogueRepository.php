<?php

declare(strict_types=1);

namespace App\HandOver\Catalogue;

use App\HandOver\Kept\NamedRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends NamedRepository<KeptCatalogue> */
final class CatalogueRepository extends NamedRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, KeptCatalogue::class);
    }
}
