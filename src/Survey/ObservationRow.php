<?php

declare(strict_types=1);

namespace App\Survey;

/** An observation as it is read by the thousand: columns of {@see Observation} and the name of its file. */
final readonly class ObservationRow
{
    /** @param ?string $covariance JSON, as stored */
    public function __construct(
        public int $id,
        public string $kind,
        public string $set,
        public string $from,
        public string $to,
        public float $v1,
        public ?float $v2,
        public ?float $v3,
        public ?float $sd,
        public float $hi,
        public float $ht,
        public ?string $covariance,
        public ?string $back,
        public int $used,
        public string $reason,
        public ?string $asideBy,
        public ?string $asideAt,
        public ?int $fileId,
        public ?string $file,
        public ?int $line,
    ) {
    }

    public function source(): string
    {
        return null === $this->file ? 'observation '.$this->id : $this->file.' line '.$this->line;
    }
}
