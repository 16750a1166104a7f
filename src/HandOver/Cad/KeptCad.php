<?php

declare(strict_types=1);

namespace App\HandOver\Cad;

use App\HandOver\Kept\Named;
use Doctrine\ORM\Mapping as ORM;

/** A hand-over to drawing programs as it is defined. */
#[ORM\Entity(repositoryClass: CadRepository::class)]
#[ORM\Table(name: 'cad_set')]
#[ORM\UniqueConstraint(name: 'cad_set_name', columns: ['project_id', 'name'])]
#[ORM\Index(name: 'cad_set_project', columns: ['project_id'])]
class KeptCad extends Named
{
    public static function noun(): string
    {
        return 'drawing set';
    }

    public function definition(): CadDefinition
    {
        return CadDefinition::fromArray($this->definition);
    }
}
