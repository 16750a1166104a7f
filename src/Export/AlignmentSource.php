<?php

declare(strict_types=1);

namespace App\Export;

use App\Project\Project;
use Mensura\Alignment\Alignment;
use Mensura\Fault\UnusableInput;

/** Alignments of the project; the Terrain stage gives them. */
interface AlignmentSource
{
    /** @return list<array{file: int, fileName: string, name: string, length: float}> metres */
    public function listed(Project $project): array;

    /** @throws UnusableInput where there is none, or it lies in another system */
    public function alignment(Project $project, int $id, string $name): Alignment;
}
