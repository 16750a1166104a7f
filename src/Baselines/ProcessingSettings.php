<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Baselines\Request\ProcessRequest;
use Mensura\Gnss\AntennaModel;
use Mensura\Gnss\Options;

/** What baselines are processed with. */
final readonly class ProcessingSettings
{
    public const BOTH_BANDS = 'both';
    public const FIRST_BAND = 'first';
    /** The ionosphere's difference is weighted by the length of the line, or unknown for every satellite. */
    public const WEIGHTED = 'weighted';
    public const FREE = 'free';

    /**
     * @param float        $mask    least elevation, degrees
     * @param list<string> $leftOut satellites
     * @param ?float       $from    first instant, seconds of GPS time since its first
     */
    public function __construct(
        public float $mask = 10.0, public string $orbits = OrbitFiles::BROADCAST, public string $bands = self::BOTH_BANDS,
        public string $ionosphere = self::WEIGHTED, public array $leftOut = [], public ?float $from = null, public ?float $to = null,
    ) {
    }

    public static function of(ProcessRequest $r): self
    {
        return new self($r->mask, $r->orbits, $r->bands, $r->ionosphere, array_values(array_unique($r->leftOut)), $r->from, $r->to);
    }

    /** @param array<string, mixed> $kept */
    public static function fromArray(array $kept): self
    {
        return new self(
            (float) ($kept['mask'] ?? 10.0), (string) ($kept['orbits'] ?? OrbitFiles::BROADCAST),
            (string) ($kept['bands'] ?? self::BOTH_BANDS),
            (string) ($kept['ionosphere'] ?? self::WEIGHTED), array_values(array_map(strval(...), (array) ($kept['leftOut'] ?? []))),
            isset($kept['from']) ? (float) $kept['from'] : null, isset($kept['to']) ? (float) $kept['to'] : null,
        );
    }

    public function options(?AntennaModel $base, ?AntennaModel $rover): Options
    {
        return new Options(deg2rad($this->mask), self::FREE === $this->ionosphere, $base, $rover);
    }

    /** As in "mask 10°, broadcast orbits, both bands, without G05". */
    public function words(): string
    {
        $words = [
            \sprintf('mask %s°', $this->mask), $this->orbits.' orbits', self::BOTH_BANDS === $this->bands ? 'both bands' : 'first band',
        ];
        if (self::FREE === $this->ionosphere) {
            $words[] = 'free of the ionosphere';
        }
        if ([] !== $this->leftOut) {
            $words[] = 'without '.implode(', ', $this->leftOut);
        }
        if (null !== $this->from || null !== $this->to) {
            $words[] = 'a part of the time';
        }

        return implode(', ', $words);
    }
}
