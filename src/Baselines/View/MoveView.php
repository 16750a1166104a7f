<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** A receiver's way from one place to the next. Seconds after the first epoch; millimetres east, north, up. */
final readonly class MoveView
{
    /** @param list<float> $shift */
    public function __construct(public float $from, public float $to, public array $shift, public float $confidence)
    {
    }
}
