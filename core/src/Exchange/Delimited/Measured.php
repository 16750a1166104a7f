<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

/** What a file says of how a point was measured, as far as it says it. Metres; the time in UTC, ISO 8601. */
final readonly class Measured
{
    private const LONGEST = 40;

    /** Names, letters and digits only in lower case, that properties of features have for them; common practice. */
    private const NAMES = [
        'at' => Headings::TIME, 'method' => Headings::METHOD, 'satellites' => Headings::SATELLITES, 'positions' => Headings::POSITIONS,
        'sdPlan' => Headings::SD_PLAN, 'sdUp' => [...Headings::SD_UP, ...Headings::SD_H], 'line' => Headings::LINEWORK,
    ];

    /**
     * @param ?int   $positions how many were averaged
     * @param string $line      how the line of its code goes on here: a number, start, arc, end, close
     */
    public function __construct(
        public ?string $at = null, public string $method = '', public ?int $satellites = null, public ?int $positions = null,
        public ?float $sdPlan = null, public ?float $sdUp = null, public string $line = '',
    ) {
    }

    /**
     * Of texts as they stand in a file; what is not understood is left out.
     *
     * @param array<string, string> $t     by the names of its own parts
     * @param float                 $metre metres of a unit of its lengths
     *
     * @return ?self null where nothing is said
     */
    public static function of(array $t, float $metre = 1.0): ?self
    {
        $count = static fn (string $key): ?int => 1 === preg_match('/^\d{1,6}$/D', trim($t[$key] ?? '')) ? (int) $t[$key] : null;
        $length = static function (string $key) use ($t, $metre): ?float {
            $text = trim($t[$key] ?? '');

            return is_numeric($text) && (float) $text > 0.0 && is_finite((float) $text) ? (float) $text * $metre : null;
        };
        $measured = new self(
            self::time(trim($t['at'] ?? '')), mb_substr(trim($t['method'] ?? ''), 0, self::LONGEST), $count('satellites'),
            $count('positions'), $length('sdPlan'), $length('sdUp'), mb_substr(trim($t['line'] ?? ''), 0, self::LONGEST),
        );

        return $measured->isEmpty() ? null : $measured;
    }

    /**
     * Of the properties of a feature.
     *
     * @param array<string, string|int|float|bool|null> $properties
     */
    public static function ofProperties(array $properties, float $metre): ?self
    {
        $words = [];
        foreach ($properties as $name => $value) {
            $words[(string) preg_replace('/[^a-z0-9]/', '', strtolower((string) $name))] ??= (string) $value;
        }
        $texts = [];
        foreach (self::NAMES as $key => $names) {
            foreach ($names as $name) {
                if ('' !== trim($words[$name] ?? '')) {
                    $texts[$key] = $words[$name];
                    break;
                }
            }
        }

        return self::of($texts, $metre);
    }

    /** A date and time as ISO 8601 writes it, UTC where no zone is said; null where it is none. */
    public static function time(string $text): ?string
    {
        $pattern = '/^\d{4}-\d\d-\d\d[T ]\d\d:\d\d(?::\d\d(?:\.\d+)?)?(?: ?Z|[+-]\d\d:?\d\d)?$/D';
        $at = 1 === preg_match($pattern, $text) ? date_create_immutable($text, new \DateTimeZone('UTC')) : false;
        if (false === $at || 0 !== (date_get_last_errors()['warning_count'] ?? 0)) {
            return null;
        }

        return $at->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z');
    }

    private function isEmpty(): bool
    {
        return null === $this->at && '' === $this->method && null === $this->satellites && null === $this->positions
            && null === $this->sdPlan && null === $this->sdUp && '' === $this->line;
    }

    /** @return array<string, string|int|float> what is said, by the names of its parts */
    public function toArray(): array
    {
        return array_filter(get_object_vars($this), static fn (mixed $v): bool => null !== $v && '' !== $v);
    }

    /** @param array<string, mixed> $d as {@see toArray()} gives it */
    public static function fromArray(array $d): self
    {
        return new self(
            isset($d['at']) ? (string) $d['at'] : null, (string) ($d['method'] ?? ''),
            isset($d['satellites']) ? (int) $d['satellites'] : null,
            isset($d['positions']) ? (int) $d['positions'] : null, isset($d['sdPlan']) ? (float) $d['sdPlan'] : null,
            isset($d['sdUp']) ? (float) $d['sdUp'] : null, (string) ($d['line'] ?? ''),
        );
    }
}
