<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Fault\UnusableInput;
use Mensura\Passes\Correction;
use Mensura\Passes\PassComparison;

/** Passes that were registered: the newest run of each is the version of its trajectory that is in use. */
final class MadePasses
{
    public function __construct(private readonly Results $results, private readonly FileStore $store)
    {
    }

    /** @return array<int, Result> by number */
    public function of(Project $project): array
    {
        $passes = [];
        foreach ($this->results->current($project) as $slot => $result) {
            if (str_starts_with($slot, PassMaker::PREFIX)) {
                $passes[$result->number()] = $result;
            }
        }
        ksort($passes);

        return $passes;
    }

    /** @throws UnusableInput where it is not there, stale, or not corrected */
    public function fresh(Project $project, int $number, string $pointer): Result
    {
        $pass = $this->of($project)[$number] ?? throw new UnusableInput($pointer, 'there is no such pass');
        if (isset($this->results->stale($project)[$pass->slot])) {
            throw new UnusableInput($pointer, 'is stale; align the pass again first');
        }

        return PassComparison::CORRECTED === $pass->summary['status'] ? $pass
            : throw new UnusableInput($pointer, 'is not corrected: its scan stays as it came');
    }

    /** "village, up v2": which version of its trajectory it goes by. */
    public static function named(Result $pass): string
    {
        return $pass->summary['name'].' v'.$pass->run;
    }

    public function correction(Result $pass): Correction
    {
        return $this->kept($pass, 'correction');
    }

    /** Of what it was laid onto, as that was then. */
    public function ofWhatStays(Result $pass): Correction
    {
        return $this->kept($pass, 'stays');
    }

    private function kept(Result $pass, string $which): Correction
    {
        ['times' => $times, 'shifts' => $shifts] = $this->store->getJson($pass->output)[$which] ?? ['times' => [], 'shifts' => []];

        return [] === $times ? Correction::none() : new Correction($times, $shifts);
    }
}
