<?php

declare(strict_types=1);

namespace App\Network\Book;

use App\Project\Project;
use Mensura\TotalStation\ReductionSettings;
use Mensura\TotalStation\Weather;

/**
 * How the total-station book of a project is reduced, and what was typed for single setups.
 *
 * @phpstan-type SetupChoice array{mode: string, precision: string, temperature: ?float, pressure: ?float, humidity: ?float, prism: float}
 */
final readonly class BookSettings
{
    /** Pointing by pointing into the adjustment, or their means. */
    public const POINTINGS = 'pointings';
    public const MEANS = 'means';

    /** Precision of means: from the rounds, or a priori. */
    public const FROM_ROUNDS = 'rounds';
    public const A_PRIORI = 'a-priori';

    private const NOTHING = [
        'mode' => self::POINTINGS, 'precision' => self::A_PRIORI, 'temperature' => null, 'pressure' => null,
        'humidity' => null, 'prism' => 0.0,
    ];

    /** @param array<string, SetupChoice> $setups by key of the setup */
    private function __construct(
        public ?float $referenceRefractivity,
        public float $wavelength,
        public float $refraction,
        private array $setups,
    ) {
    }

    public static function of(Project $project): self
    {
        $book = $project->networkSettings()['book'] ?? [];
        $book = \is_array($book) ? $book : [];
        $refraction = $project->networkSettings()['refraction'] ?? 0.13;

        return new self(
            isset($book['referenceRefractivity']) ? (float) $book['referenceRefractivity'] : null, (float) ($book['wavelength'] ?? 0.658),
            is_numeric($refraction) ? (float) $refraction : 0.13, \is_array($book['setups'] ?? null) ? $book['setups'] : [],
        );
    }

    /** @return SetupChoice */
    public function choice(string $setup): array
    {
        return ($this->setups[$setup] ?? []) + self::NOTHING;
    }

    public function isUntouched(): bool
    {
        return [] === $this->setups;
    }

    public function core(): ReductionSettings
    {
        return new ReductionSettings($this->refraction, 6371000.0, $this->wavelength, $this->referenceRefractivity);
    }

    /** What was typed for the set-up, else what was recorded with its sights. */
    public function weather(BookedSetup $setup): ?Weather
    {
        $c = $this->choice($setup->key);

        return null === $c['temperature'] || null === $c['pressure'] || null === $c['humidity'] ? $setup->recordedWeather()
            : new Weather((float) $c['temperature'], (float) $c['pressure'], (float) $c['humidity']);
    }
}
