<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** Rover features of a project. */
final readonly class FeaturesView
{
    /** @param list<FeatureFileView> $files */
    public function __construct(public array $files)
    {
    }
}
