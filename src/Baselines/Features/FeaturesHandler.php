<?php

declare(strict_types=1);

namespace App\Baselines\Features;

use App\Job\JobContext;
use App\Job\JobHandler;

final class FeaturesHandler implements JobHandler
{
    public function __construct(private readonly FeatureCorrection $correction)
    {
    }

    public static function kind(): string
    {
        return 'correct-features';
    }

    public function run(JobContext $context): void
    {
        $this->correction->make(
            $context->project, $context->authorName, FeatureCorrection::request($context->payload), $context->report(...), $context->jobId,
        );
    }
}
