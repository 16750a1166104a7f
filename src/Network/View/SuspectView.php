<?php

declare(strict_types=1);

namespace App\Network\View;

/** A suspect with its evidence: metres, degrees, parts per million. */
final readonly class SuspectView
{
    /**
     * @param string                      $quantity   length, angle or ppm: what the estimate is
     * @param float                       $explains   part of the misfit beyond expectation that it takes away, 0 to 1
     * @param list<int>                   $touched    observations it changes
     * @param list<array{id: int, field: string, add?: float, to?: string}> $changes what accepting it does to them; nothing
     *     when it lies in no observation
     * @param ?string                     $station    mark whose given coordinates it doubts
     * @param list<SuspectRowView>        $rows       the residuals it changes most
     * @param list<ShiftView>             $moves      of the stations, with it
     */
    public function __construct(
        public string $cause,
        public string $words,
        public string $quantity,
        public ?float $estimate,
        public ?float $sd,
        public float $statistic,
        public float $explains,
        public ?float $factorAfter,
        public ?string $suggests,
        public array $touched,
        public array $changes,
        public ?string $station,
        public array $rows,
        public array $moves,
        public ?float $largestMove,
        public ?string $largestMoveAt,
    ) {
    }
}
