<?php

declare(strict_types=1);

namespace App\Project;

use Mensura\Fault\UnusableInput;

/** What is known below the stages of systems and geoids: their names, and which a project can begin in. */
interface MeaningOfCoordinates
{
    public function systemName(Project $project): string;

    /** Empty where heights are not above a geoid. */
    public function geoidName(Project $project): string;

    /**
     * The code of a projected system of the registry, as the project keeps it.
     *
     * @throws UnusableInput
     */
    public function beginsIn(string $reference): string;
}
