<?php

declare(strict_types=1);

namespace App\Network\View;

/** How well a planned sight will be checked: the least redundancy number of its observations, the largest external effect (metres). */
final readonly class PlanSightView
{
    public function __construct(public float $redundancy, public ?float $external)
    {
    }
}
