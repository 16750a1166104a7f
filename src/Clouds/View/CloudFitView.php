<?php

declare(strict_types=1);

namespace App\Clouds\View;

/** How a cloud lies on the one it was laid onto. */
final readonly class CloudFitView
{
    /**
     * @param string      $onto    name of the other
     * @param float       $overlap part of its points that lie on the other
     * @param float       $rms     of their distances, metres
     * @param list<float> $shift   of its centre, metres
     * @param float       $turn    degrees
     */
    public function __construct(public string $onto, public float $overlap, public float $rms, public array $shift, public float $turn)
    {
    }
}
