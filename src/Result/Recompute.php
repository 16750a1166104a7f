<?php

declare(strict_types=1);

namespace App\Result;

use App\Job\JobContext;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Computes results of one kind again, as they were computed before, from what is there now. */
#[AutoconfigureTag('app.recompute')]
interface Recompute
{
    public static function kind(): string;

    /** @param Result $newest the newest run */
    public function again(JobContext $context, Result $newest): void;
}
