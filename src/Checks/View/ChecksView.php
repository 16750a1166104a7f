<?php

declare(strict_types=1);

namespace App\Checks\View;

use App\Design\View\CloudFileView;
use App\Design\View\DesignFileView;

/** The Checks stage. */
final readonly class ChecksView
{
    /**
     * @param list<DeviationView> $deviations
     * @param list<DesignFileView>    $designs
     * @param list<SurfaceChoice> $surfaces   those that are computed
     * @param array<string, int>  $codes      points by code
     * @param list<CloudFileView>   $clouds
     * @param list<CheckPointsView> $checks
     * @param int                   $checkPoints how many points have that role
     */
    public function __construct(
        public array $deviations, public array $designs, public array $surfaces, public array $codes, public array $clouds,
        public array $checks, public int $checkPoints,
    ) {
    }
}
