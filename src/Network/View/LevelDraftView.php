<?php

declare(strict_types=1);

namespace App\Network\View;

/** A run worked out as it is being written: metres. */
final readonly class LevelDraftView
{
    /**
     * @param list<array{setup: int, horizon: ?float, h: ?float, repeat: ?float, isBeyond: bool, misclosure: ?float,
     *     unbalance: ?float, fault: ?string}> $rows
     */
    public function __construct(
        public array $rows,
        public float $backs,
        public float $fores,
        public int $setups,
        public ?float $length,
    ) {
    }
}
