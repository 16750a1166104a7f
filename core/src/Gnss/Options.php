<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/** What a processing is done with, besides what was recorded. */
final readonly class Options
{
    /**
     * @param float $mask   least elevation, radians
     * @param bool  $isFree every satellite's ionosphere is unknown, for long lines; else it is weighted by the length
     */
    public function __construct(public float $mask, public bool $isFree = false)
    {
    }
}
