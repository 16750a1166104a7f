<?php

declare(strict_types=1);

namespace App\HandOver\Catalogue;

use App\HandOver\Kept\Named;
use Doctrine\ORM\Mapping as ORM;

/** A feature catalogue as it is edited; its versions are what was written of it. */
#[ORM\Entity(repositoryClass: CatalogueRepository::class)]
#[ORM\Table(name: 'feature_catalogue')]
#[ORM\UniqueConstraint(name: 'feature_catalogue_name', columns: ['project_id', 'name'])]
#[ORM\Index(name: 'feature_catalogue_project', columns: ['project_id'])]
class KeptCatalogue extends Named
{
    public static function noun(): string
    {
        return 'catalogue';
    }

    public function definition(): CatalogueDefinition
    {
        return CatalogueDefinition::fromArray($this->definition);
    }
}
