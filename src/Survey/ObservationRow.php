<?php

declare(strict_types=1);

namespace App\Survey;

/** An observation as it is read by the thousand: columns of {@see Observation} and the name of its file. */
final readonly class ObservationRow
{
    /**
     * @param ?string                     $covariance JSON, as stored
     * @param array<string, float|string> $recorded   what stood in corrected columns: v1, v2, v3, hi, ht, to
     */
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
        public ?int $face,
        public ?int $round,
        public ?string $observedAt,
        public ?float $length,
        public ?string $weather,
        public array $recorded = [],
    ) {
    }

    /** @param list<array{field: string, add?: float, to?: string}> $changes */
    public function corrected(array $changes): self
    {
        $row = get_object_vars($this);
        foreach ($changes as $change) {
            $field = $change['field'];
            $row['recorded'][$field] ??= $row[$field] ?? 0.0;
            $row[$field] = isset($change['to']) ? $change['to'] : (float) $row[$field] + ($change['add'] ?? 0.0);
        }
        if (isset($row['recorded']['v1']) && \in_array($this->kind, ['direction', 'azimuth', 'angle'], true)) {
            $row['v1'] = fmod(fmod($row['v1'], 360.0) + 360.0, 360.0);
        }

        return new self(...$row);
    }

    public function source(): string
    {
        return null === $this->file ? 'observation '.$this->id : $this->file.' line '.$this->line;
    }
}
