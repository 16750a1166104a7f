<?php

declare(strict_types=1);

namespace App\HandOver\Cad;

use App\HandOver\Kept\NamedRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends NamedRepository<KeptCad> */
final class CadRepository extends NamedRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, KeptCad::class);
    }
}
