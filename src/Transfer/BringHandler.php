<?php

declare(strict_types=1);

namespace App\Transfer;

use App\Job\JobContext;
use App\Job\JobHandler;
use App\Store\FileStore;

/** Fills an empty project with what an archive holds. */
final class BringHandler implements JobHandler
{
    public function __construct(private readonly BringIn $bring, private readonly FileStore $store)
    {
    }

    public static function kind(): string
    {
        return 'bring-project';
    }

    public function run(JobContext $context): void
    {
        $archive = ProjectArchive::open($this->store->localPath((string) $context->payload['file']));
        $this->bring->into($context->project, $archive, $archive->name(), $context->report(...), $context->jobId);
    }
}
