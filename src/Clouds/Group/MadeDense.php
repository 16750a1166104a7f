<?php

declare(strict_types=1);

namespace App\Clouds\Group;

use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Exchange\Cloud\CloudReader;
use Mensura\Fault\UnusableInput;

/** Dense points that were made. */
final class MadeDense
{
    public function __construct(private readonly Results $results, private readonly FileStore $store)
    {
    }

    public function name(Project $project, int $number): string
    {
        return 'images of '.(string) ($this->at($project, $number)?->summary['of'] ?? '');
    }

    /** @throws UnusableInput where they are not there, or stale */
    public function opened(Project $project, int $number, string $pointer): CloudReader
    {
        $dense = $this->at($project, $number) ?? throw new UnusableInput($pointer, 'there are no such dense points');
        if (isset($this->results->stale($project)[$dense->slot])) {
            throw new UnusableInput($pointer, 'are stale; make the dense points again first');
        }

        return CloudReader::open($this->store->localPath($dense->output), (string) $dense->summary['name']);
    }

    private function at(Project $project, int $number): ?Result
    {
        return $this->results->current($project)[DenseMaker::PREFIX.$number] ?? null;
    }
}
