<?php

declare(strict_types=1);

namespace App\Network;

use App\Export\PointPrecision;
use App\Project\Project;
use App\Result\Results;
use App\Store\FileStore;
use App\Survey\AcceptedCoordinates;

/** Standard deviations of the adjustment whose coordinates were accepted. */
final class AcceptedPrecision implements PointPrecision
{
    public function __construct(private readonly Results $results, private readonly FileStore $store)
    {
    }

    public function of(Project $project): array
    {
        $accepted = $this->results->current($project)[AcceptedCoordinates::SLOT]->settings['run'] ?? null;
        foreach (null === $accepted ? [] : $this->results->runs($project, Adjuster::SLOT) as $run) {
            if ($run->run === $accepted) {
                return array_map(
                    static fn (array $s): array => [$s['sd']['e'], $s['sd']['n'], $s['sd']['h']],
                    StoredAdjustment::of($this->store, $run)->stations,
                );
            }
        }

        return [];
    }
}
