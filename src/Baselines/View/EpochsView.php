<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** An occupation solved epoch by epoch: where it stood, and when it moved. Times are seconds after the first epoch; millimetres. */
final readonly class EpochsView
{
    /**
     * @param float           $first   instant of the first epoch, seconds of GPS time since 1980-01-06
     * @param list<StandView> $stands
     * @param list<MoveView>  $moves
     * @param ?int            $keep    number of the stand proposed to be kept; null where there is nothing to choose
     * @param list<string>    $stale
     * @param list<string>    $warnings
     */
    public function __construct(
        public string $mark,
        public float $first,
        public int $epochs,
        public int $fixed,
        public array $stands,
        public array $moves,
        public ?int $keep,
        public string $output,
        public array $stale,
        public array $warnings,
    ) {
    }
}
