<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Survey\SurveyFile;

/** What a file of observations says of itself, as Intake kept it. */
final readonly class Recorded
{
    /**
     * @param list<string>                $satellites
     * @param array{float, float, float}  $offset     antenna reference point above, east and north of the marker, metres
     * @param ?array{float, float, float} $place      approximate, geocentric, metres
     */
    private function __construct(
        public string $marker, public float $from, public float $to, public ?float $interval, public int $epochs, public array $satellites,
        public string $receiver, public string $antenna, public array $offset, public ?array $place, public float $rinex,
        public bool $moves,
    ) {
    }

    public static function in(SurveyFile $file): self
    {
        $m = $file->mapping();

        return new self(
            (string) $m['marker'], (float) $m['from'], (float) $m['to'], isset($m['interval']) ? (float) $m['interval'] : null,
            (int) $m['epochs'], array_values(
                array_map(strval(...), (array) $m['satellites']),
            ), (string) $m['receiver'], (string) $m['antenna'],
            self::three($m['offset']) ?? [0.0, 0.0, 0.0], self::three($m['place']), (float) $m['version'], (bool) ($m['moves'] ?? false),
        );
    }

    /** @return ?array{float, float, float} */
    private static function three(mixed $values): ?array
    {
        return \is_array($values) && 3 === \count($values) ? [(float) $values[0], (float) $values[1], (float) $values[2]] : null;
    }
}
