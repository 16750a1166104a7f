<?php

declare(strict_types=1);

namespace App\Clouds\View;

use App\Design\View\CloudFileView;

/** The Clouds stage. */
final readonly class CloudsView
{
    /**
     * @param list<CloudView>     $clouds
     * @param list<CloudFileView> $files received clouds
     * @param list<array{name: string, role: string, e: float, n: float, h: float}> $points control and check points
     * @param array<string, string> $products clouds and heights by slot, to deviate from
     */
    public function __construct(public array $clouds, public array $files, public array $points, public array $products)
    {
    }
}
