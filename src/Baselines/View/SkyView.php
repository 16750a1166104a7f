<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** How a receiver tracked, in equal cells of time. Seconds; instants of GPS time since 1980-01-06. */
final readonly class SkyView
{
    /**
     * @param list<int>    $count greatest number of satellites in each cell
     * @param list<SkyRow> $rows
     */
    public function __construct(public float $from, public float $span, public array $count, public array $rows)
    {
    }
}
