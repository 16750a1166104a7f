<?php

declare(strict_types=1);

namespace App\Export;

use App\Project\Project;
use Mensura\Fault\UnusableInput;

/** What a drawing shows besides points; the Terrain stage gives it. */
interface DrawingSource
{
    /** @return array<int, string> names of the computed surfaces, by number */
    public function surfaces(Project $project): array;

    /**
     * @param list<int> $surfaces
     *
     * @return list<DrawnLine>
     *
     * @throws UnusableInput
     */
    public function lines(Project $project, array $surfaces): array;

    /**
     * @param list<int> $surfaces
     *
     * @return iterable<DrawnContours>
     *
     * @throws UnusableInput when a surface is not computed
     */
    public function contours(Project $project, array $surfaces): iterable;

    /**
     * @param list<int> $surfaces
     *
     * @return iterable<DrawnTriangles>
     *
     * @throws UnusableInput when a surface is not computed
     */
    public function triangles(Project $project, array $surfaces): iterable;
}
