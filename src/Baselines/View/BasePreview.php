<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** What a base correction would move. */
final readonly class BasePreview
{
    /**
     * @param list<BaseMoveView> $rows  some of them where there are thousands; count says how many there are
     * @param list<float>        $shift east, north, up, metres
     * @param list<float>        $base  its right position, easting, northing, height of the project
     * @param string             $words how the right position was understood
     */
    public function __construct(public array $rows, public int $count, public array $shift, public array $base, public string $words)
    {
    }
}
