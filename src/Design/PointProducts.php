<?php

declare(strict_types=1);

namespace App\Design;

use App\Project\Project;
use Mensura\Fault\UnusableInput;

/** Points that a stage made and others hold something against: clouds, heights of flights. */
interface PointProducts
{
    /** @return array<string, string> names by the slot of the result */
    public function names(Project $project): array;

    /**
     * @return array{list<float>, list<float>, list<float>, string} easting, northing, height in metres, and what they are, in words
     *
     * @throws UnusableInput where there is none, it is stale, or it holds more than is compared at once
     */
    public function points(Project $project, string $slot, string $pointer): array;
}
