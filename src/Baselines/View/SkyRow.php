<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** One satellite of a strip. */
final readonly class SkyRow
{
    /**
     * @param list<float>  $tracked  share of each cell
     * @param list<?float> $strength mean of the first band, dB-Hz
     * @param list<int>    $lost     how often lock was lost
     */
    public function __construct(public string $id, public array $tracked, public array $strength, public array $lost)
    {
    }
}
