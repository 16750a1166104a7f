<?php

declare(strict_types=1);

namespace App\Clouds\Export;

use App\Clouds\CloudMaker;
use App\Project\Project;
use App\Result\Result;
use Mensura\Fault\UnusableInput;

/** An export of one cloud, of those that were made. */
trait OfOneCloud
{
    public function choices(Project $project): array
    {
        return array_map(static fn (Result $r): string => (string) $r->summary['name'], $this->clouds->of($project));
    }

    public function restsOn(array $chosen): array
    {
        return [[], [CloudMaker::PREFIX.($chosen[0] ?? 0)]];
    }

    /** @param list<int> $chosen */
    private function chosen(Project $project, array $chosen): Result
    {
        return $this->clouds->of($project)[$chosen[0] ?? 0] ?? throw new UnusableInput('/surfaces', 'are one cloud of the project');
    }
}
