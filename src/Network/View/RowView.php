<?php

declare(strict_types=1);

namespace App\Network\View;

/**
 * One scalar of an observation with its statistics. Angles in degrees, lengths in metres; groundMm is the residual on the
 * ground; recorded values where a correction stands before them.
 */
final readonly class RowView
{
    public function __construct(
        public int $id,
        public ?string $component,
        public string $kind,
        public string $set,
        public string $at,
        public string $to,
        public float $observed,
        public ?float $residual,
        public ?float $groundMm,
        public ?float $sd,
        public ?float $standardized,
        public ?float $redundancy,
        public ?float $detectable,
        public ?float $external,
        public bool $flagged,
        public bool $used,
        public string $reason,
        public ?string $asideBy,
        public ?string $asideAt,
        public ?int $fileId,
        public ?string $file,
        public ?int $line,
        public float $hi,
        public float $ht,
        public ?float $recorded,
        public ?float $recordedHi,
        public ?float $recordedHt,
        public ?string $recordedTo,
        public ?int $face,
        public ?int $round,
        public ?string $observedAt,
        /** The station an angle is measured from. */
        public ?string $back,
    ) {
    }
}
