<?php

declare(strict_types=1);

namespace App\HandOver\Package;

use App\HandOver\Kept\Named;
use Doctrine\ORM\Mapping as ORM;

/** A package as it is defined. */
#[ORM\Entity(repositoryClass: PackageRepository::class)]
#[ORM\Table(name: 'package')]
#[ORM\UniqueConstraint(name: 'package_name', columns: ['project_id', 'name'])]
#[ORM\Index(name: 'package_project', columns: ['project_id'])]
class KeptPackage extends Named
{
    public static function noun(): string
    {
        return 'package';
    }

    public function definition(): PackageDefinition
    {
        return PackageDefinition::fromArray($this->definition);
    }
}
