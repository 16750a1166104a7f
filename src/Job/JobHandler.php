<?php

declare(strict_types=1);

namespace App\Job;

/** Does the work of one kind of job. May be started again after a killed worker: what it stores, it stores through one operation. */
interface JobHandler
{
    public static function kind(): string;

    public function run(JobContext $context): void;
}
