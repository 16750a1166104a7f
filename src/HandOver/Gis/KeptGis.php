<?php

declare(strict_types=1);

namespace App\HandOver\Gis;

use App\HandOver\Kept\Named;
use Doctrine\ORM\Mapping as ORM;

/** A hand-over to information systems as it is defined. */
#[ORM\Entity(repositoryClass: GisRepository::class)]
#[ORM\Table(name: 'gis_set')]
#[ORM\UniqueConstraint(name: 'gis_set_name', columns: ['project_id', 'name'])]
#[ORM\Index(name: 'gis_set_project', columns: ['project_id'])]
class KeptGis extends Named
{
    public static function noun(): string
    {
        return 'GIS set';
    }

    public function definition(): GisDefinition
    {
        return GisDefinition::fromArray($this->definition);
    }
}
