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
     * @param array<string, string> $made        clouds and heights that were made here, by slot
     * @param int                   $checkPoints how many points have that role
     */
    public function __construct(
        public array $deviations, public array $designs, public array $surfaces, public array $codes, public array $clouds,
        public array $checks, public int $checkPoints, public array $made,
    ) {
    }
}
