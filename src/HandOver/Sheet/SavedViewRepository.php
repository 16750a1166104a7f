<?php

declare(strict_types=1);

namespace App\HandOver\Sheet;

use App\HandOver\Kept\NamedRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends NamedRepository<SavedView> */
final class SavedViewRepository extends NamedRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, SavedView::class);
    }
}
