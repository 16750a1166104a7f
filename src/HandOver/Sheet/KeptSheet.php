<?php

declare(strict_types=1);

namespace App\HandOver\Sheet;

use App\HandOver\Kept\Named;
use Doctrine\ORM\Mapping as ORM;

/** A drawing sheet as it is laid out. */
#[ORM\Entity(repositoryClass: SheetRepository::class)]
#[ORM\Table(name: 'sheet')]
#[ORM\UniqueConstraint(name: 'sheet_name', columns: ['project_id', 'name'])]
#[ORM\Index(name: 'sheet_project', columns: ['project_id'])]
class KeptSheet extends Named
{
    public static function noun(): string
    {
        return 'sheet';
    }

    public function definition(): SheetDefinition
    {
        return SheetDefinition::fromArray($this->definition);
    }
}
