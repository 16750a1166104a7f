<?php

declare(strict_types=1);

namespace App\Checks\View;

/** The Checks stage. */
final readonly class ChecksView
{
    /**
     * @param list<DeviationView> $deviations
     * @param list<DesignFileView>    $designs
     * @param list<SurfaceChoice> $surfaces   those that are computed
     * @param array<string, int>  $codes      points by code
     */
    public function __construct(public array $deviations, public array $designs, public array $surfaces, public array $codes)
    {
    }
}
