<?php

declare(strict_types=1);

namespace App\Checks;

use App\Checks\Request\DeviationRequest;
use App\Survey\PointRow;

/** What a comparison is made of; kept with its result, so that it can be made again. Metres. */
final readonly class DeviationSettings
{
    public const SURFACE = 'surface';
    public const DESIGN = 'design';
    public const PLANE = 'plane';
    public const ELEVATION = 'elevation';
    /** Of a design's drawing; the first where nobody said: then metres, unless that is doubtful. */
    public const UNITS = ['', 'm', 'ft', 'ftUS', 'mm'];
    public const METRES = ['' => 1.0, 'm' => 1.0, 'ft' => 0.3048, 'ftUS' => 1200.0 / 3937.0, 'mm' => 0.001];
    public const REFERENCES = [self::SURFACE, self::DESIGN, self::PLANE, self::ELEVATION];

    /**
     * @param list<string> $codes
     * @param list<string> $layers
     * @param list<string> $planeCodes
     */
    public function __construct(
        public string $name, public string $reference, public string $along, public string $measuredOn = '', public array $codes = [],
        public string $pattern = '', public int $surface = 0, public int $design = 0, public array $layers = [],
        public array $planeCodes = [], public float $elevation = 0.0, public ?float $ignore = null, public string $unit = '',
    ) {
    }

    public static function of(DeviationRequest $r): self
    {
        return new self(
            trim($r->name), $r->reference, $r->along, $r->measuredOn, array_values(array_unique($r->codes)), trim($r->pattern), $r->surface,
            $r->design, array_values(array_unique($r->layers)), array_values(array_unique($r->planeCodes)), $r->elevation, $r->ignore,
            $r->unit,
        );
    }

    /** @param array<string, mixed> $s */
    public static function fromArray(array $s): self
    {
        $texts = static fn (string $key): array => array_values(array_map(strval(...), (array) ($s[$key] ?? [])));

        return new self(
            (string) $s['name'], (string) $s['reference'], (string) $s['along'], (string) ($s['measuredOn'] ?? ''), $texts('codes'),
            (string) ($s['pattern'] ?? ''), (int) ($s['surface'] ?? 0), (int) ($s['design'] ?? 0), $texts('layers'), $texts('planeCodes'),
            (float) ($s['elevation'] ?? 0.0), isset($s['ignore']) ? (float) $s['ignore'] : null, (string) ($s['unit'] ?? ''),
        );
    }

    /** What is read of the points, as {@see MeasuredContent} knows it. */
    public function measured(): string
    {
        return MeasuredContent::kind().':'.json_encode([$this->codes, $this->pattern], \JSON_THROW_ON_ERROR);
    }

    /** As {@see measured()}, of the points a plane goes through. */
    public function planePoints(): string
    {
        return MeasuredContent::kind().':'.json_encode([$this->planeCodes, ''], \JSON_THROW_ON_ERROR);
    }

    /** @param list<string> $codes */
    public static function takes(PointRow $p, array $codes, string $pattern): bool
    {
        return null !== $p->h && ([] === $codes || \in_array($p->code, $codes, true)) && ('' === $pattern || fnmatch($pattern, $p->name));
    }
}
