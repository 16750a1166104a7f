<?php

declare(strict_types=1);

namespace App\HandOver\Sheet;

use App\HandOver\Kept\Named;
use Doctrine\ORM\Mapping as ORM;

/** What a drawing shows, under a name. A locked one shows what there was when it was locked, until it is asked to look again. */
#[ORM\Entity(repositoryClass: SavedViewRepository::class)]
#[ORM\Table(name: 'saved_view')]
#[ORM\UniqueConstraint(name: 'saved_view_name', columns: ['project_id', 'name'])]
#[ORM\Index(name: 'saved_view_project', columns: ['project_id'])]
class SavedView extends Named
{
    public static function noun(): string
    {
        return 'view';
    }

    public function definition(): ViewDefinition
    {
        return ViewDefinition::fromArray($this->definition);
    }
}
