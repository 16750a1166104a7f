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
     */
    public function __construct(public array $clouds, public array $files)
    {
    }
}
