<?php

declare(strict_types=1);

namespace App\Reference;

/**
 * How the coordinates of a project went from one meaning to another, kept with files whose coordinates stay as they were written: a
 * transformation between two systems, or a localization onto a grid.
 */
final readonly class Step
{
    /**
     * @param array{reference: string, heights: string, geoid: string} $from
     * @param array{reference: string, heights: string, geoid: string} $to
     * @param ?string $operation    name of the transformation
     * @param ?float  $epoch        years
     * @param int     $localization that was applied; 0 for none
     * @param bool    $degrees      whether the places it begins with are longitudes and latitudes in degrees
     */
    public function __construct(
        public array $from, public array $to, public ?string $operation = null, public ?float $epoch = null, public int $localization = 0,
        public bool $degrees = false,
    ) {
    }

    /** Whether places in plan become others, not their heights alone. */
    public function isInPlan(): bool
    {
        return 0 !== $this->localization || $this->from['reference'] !== $this->to['reference'];
    }

    /** @param array<string, mixed> $s as it is kept */
    public static function fromArray(array $s): self
    {
        $side = static fn (mixed $d): array => [
            'reference' => (string) ($d['reference'] ?? ''), 'heights' => (string) ($d['heights'] ?? ''),
            'geoid' => (string) ($d['geoid'] ?? ''),
        ];

        return new self(
            $side($s['from'] ?? []), $side($s['to'] ?? []), $s['operation'] ?? null, isset($s['epoch']) ? (float) $s['epoch'] : null,
            (int) ($s['localization'] ?? 0), (bool) ($s['degrees'] ?? false),
        );
    }
}
