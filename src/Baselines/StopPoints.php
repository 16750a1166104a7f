<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Account\User;
use App\Baselines\Request\StopsRequest;
use App\Project\Project;
use App\Result\Results;
use App\Store\FileStore;
use App\Survey\FileIntake;
use Mensura\Fault\UnusableInput;

/** The stops of a rover as a point file, taken into the project like any other: easting, northing and height of each mean. */
final readonly class StopPoints
{
    public function __construct(private Results $results, private FileStore $store, private FileIntake $intake)
    {
    }

    /**
     * @return int database id of the file
     *
     * @throws UnusableInput where there are no stops, or the baseline is stale
     */
    public function take(Project $project, User $author, string $pair, StopsRequest $names): int
    {
        $slot = Slots::STATIC.$pair;
        $result = $this->results->current($project)[$slot] ?? throw new UnusableInput('', 'this is not processed yet');
        if ([] !== $why = $this->results->stale($project)[$slot] ?? []) {
            throw new UnusableInput('', \sprintf('the track is stale: %s. Process it again first', implode('; ', $why)));
        }
        $stops = (array) ($this->store->getJson($result->output)['stops'] ?? []);
        if ([] === $stops) {
            throw new UnusableInput('', 'the rover stopped nowhere long enough to be averaged');
        }
        $height = 'geoid' === $project->heights() ? 'orthometric' : 'ellipsoidal';
        $lines = ["point,easting [m],northing [m],$height height [m],code"];
        foreach (array_values($stops) as $i => $s) {
            $lines[] = \sprintf('%s%d,%.4F,%.4F,%.4F,%s', $names->prefix, $i + 1, $s['e'], $s['n'], $s['h'], $names->code);
        }

        return $this->intake->take(
            $project, $author, \sprintf('%s-stops-run%d.csv', $result->summary['toName'], $result->run), implode("\n", $lines)."\n",
        );
    }
}
