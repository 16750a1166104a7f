<?php

declare(strict_types=1);

namespace App\Checks;

use App\Checks\Request\DeviationRequest;
use App\Reference\ReferenceContent;
use App\Survey\PointRow;

/** What a comparison is made of; kept with its result, so that it can be made again. Metres. */
final readonly class DeviationSettings
{
    public const SURFACE = 'surface';
    public const DESIGN = 'design';
    public const CLOUD = 'cloud';
    public const PLANE = 'plane';
    public const ELEVATION = 'elevation';
    public const REFERENCES = [self::SURFACE, self::DESIGN, self::CLOUD, self::PLANE, self::ELEVATION];
    public const POINTS = 'points';
    public const MEASURED = [self::POINTS, self::SURFACE, self::CLOUD];

    /**
     * @param list<string> $codes
     * @param list<string> $layers
     * @param list<string> $planeCodes
     */
    public function __construct(
        public string $name, public string $reference, public string $along, public string $measuredOn = '', public array $codes = [],
        public string $pattern = '', public int $surface = 0, public int $design = 0, public array $layers = [],
        public array $planeCodes = [], public float $elevation = 0.0, public ?float $ignore = null, public string $unit = '',
        public string $measured = self::POINTS, public int $measuredSurface = 0, public int $measuredCloud = 0, public int $cloud = 0,
        public ?float $radius = null,
    ) {
    }

    public static function of(DeviationRequest $r): self
    {
        return new self(
            trim($r->name), $r->reference, $r->along, $r->measuredOn, array_values(array_unique($r->codes)), trim($r->pattern), $r->surface,
            $r->design, array_values(array_unique($r->layers)), array_values(array_unique($r->planeCodes)), $r->elevation, $r->ignore,
            $r->unit, $r->measured, $r->measuredSurface, $r->measuredCloud, $r->cloud, $r->radius,
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
            (string) ($s['measured'] ?? self::POINTS), (int) ($s['measuredSurface'] ?? 0), (int) ($s['measuredCloud'] ?? 0),
            (int) ($s['cloud'] ?? 0), isset($s['radius']) ? (float) $s['radius'] : null,
        );
    }

    /** @return array{list<string>, list<string>} contents and results that are read; a file never changes, only where it lies */
    public function restsOn(): array
    {
        $contents = self::POINTS === $this->measured ? [self::points($this->codes, $this->pattern)] : [];
        if (self::PLANE === $this->reference && [] !== $this->planeCodes) {
            $contents[] = self::points($this->planeCodes, '');
        }
        if (self::CLOUD === $this->measured || \in_array($this->reference, [self::DESIGN, self::CLOUD], true)) {
            $contents[] = ReferenceContent::kind();
        }
        $surfaces = [
            self::SURFACE === $this->measured ? $this->measuredSurface : 0, self::SURFACE === $this->reference ? $this->surface : 0,
        ];
        $slots = array_map(static fn (int $n): string => ComputedSurfaces::PREFIX.$n, array_values(array_unique(array_filter($surfaces))));

        return [$contents, $slots];
    }

    /**
     * What is read of points, as {@see MeasuredContent} knows it.
     *
     * @param list<string> $codes
     */
    private static function points(array $codes, string $pattern): string
    {
        return MeasuredContent::kind().':'.json_encode([$codes, $pattern], \JSON_THROW_ON_ERROR);
    }

    /**
     * What is known of a check point was not measured.
     *
     * @param list<string> $codes
     */
    public static function takes(PointRow $p, array $codes, string $pattern): bool
    {
        return null !== $p->h && !$p->isCheck() && ([] === $codes || \in_array($p->code, $codes, true))
            && ('' === $pattern || fnmatch($pattern, $p->name));
    }
}
