<?php

declare(strict_types=1);

namespace App\Checks\CheckPoint;

use App\Checks\ComputedSurfaces;
use App\Checks\Request\CheckPointsRequest;
use App\Reference\ReferenceContent;
use App\Survey\PointRow;
use App\Survey\PointsContent;

/** What check points are compared with; kept with its result, so that it can be made again. Metres. */
final readonly class CheckPointSettings
{
    public const SURFACE = 'surface';
    public const POINT = 'point';
    public const CLOUD = 'cloud';
    public const MADE = 'made';
    public const AGAINST = [self::POINT, self::SURFACE, self::CLOUD, self::MADE];

    /**
     * @param string $pattern of the names of check points; empty for all
     * @param float  $within  how near another point is that is taken for the check point measured
     * @param string $made    slot of a cloud or of heights that were made here
     * @param ?float $radius  within which a plane is fitted through a cloud; null for three mean spacings
     */
    public function __construct(
        public string $name, public string $against, public string $pattern = '', public int $surface = 0, public int $cloud = 0,
        public float $within = 0.1, public ?float $radius = null, public string $made = '',
    ) {
    }

    public static function of(CheckPointsRequest $r): self
    {
        return new self(trim($r->name), $r->against, trim($r->pattern), $r->surface, $r->cloud, $r->within, $r->radius, $r->made);
    }

    /** @param array<string, mixed> $s */
    public static function fromArray(array $s): self
    {
        return new self(
            (string) $s['name'], (string) $s['against'], (string) ($s['pattern'] ?? ''), (int) ($s['surface'] ?? 0),
            (int) ($s['cloud'] ?? 0), (float) ($s['within'] ?? 0.1), isset($s['radius']) ? (float) $s['radius'] : null,
            (string) ($s['made'] ?? ''),
        );
    }

    /** @return array{list<string>, list<string>} contents and results that are read */
    public function restsOn(): array
    {
        $contents = [CheckPointContent::kind().':'.$this->pattern];
        if (self::POINT === $this->against) {
            $contents[] = PointsContent::kind();
        } elseif (self::CLOUD === $this->against) {
            $contents[] = ReferenceContent::kind();
        }

        return [$contents, match ($this->against) {
            self::SURFACE => [ComputedSurfaces::PREFIX.$this->surface], self::MADE => [$this->made], default => [],
        }];
    }

    public static function takes(PointRow $p, string $pattern): bool
    {
        return $p->isCheck() && ('' === $pattern || fnmatch($pattern, $p->name));
    }
}
