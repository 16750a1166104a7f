<?php

declare(strict_types=1);

namespace App\Clouds;

use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Exchange\Cloud\CloudReader;
use Mensura\Fault\UnusableInput;

/** Clouds that were made. */
final class MadeClouds
{
    public function __construct(private readonly Results $results, private readonly FileStore $store)
    {
    }

    /** @return array<int, Result> by number */
    public function of(Project $project): array
    {
        $clouds = [];
        foreach ($this->results->current($project) as $slot => $result) {
            if (str_starts_with($slot, CloudMaker::PREFIX)) {
                $clouds[$result->number()] = $result;
            }
        }
        ksort($clouds);

        return $clouds;
    }

    /** @throws UnusableInput where it is not there, or stale */
    public function fresh(Project $project, int $number, string $pointer): Result
    {
        $slot = CloudMaker::PREFIX.$number;
        if (isset($this->results->stale($project)[$slot])) {
            throw new UnusableInput($pointer, 'is stale; make the cloud again first');
        }

        return $this->of($project)[$number] ?? throw new UnusableInput($pointer, 'there is no such cloud');
    }

    public function opened(Result $cloud): CloudReader
    {
        return CloudReader::open($this->store->localPath((string) $cloud->summary['las']), (string) $cloud->summary['name']);
    }
}
