<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

/** What a file holds, as it is counted while it is looked at. Coordinates in the file's own system, longitude first. */
final class Looked
{
    public const POINT = 'points';
    public const LINE = 'lines';
    public const POLYGON = 'polygons';
    public const FACE = 'faces';

    /** Warnings beyond this are only counted. */
    private const MOST_WARNINGS = 20;

    /** @var array<string, int> */
    private array $counts = [self::POINT => 0, self::LINE => 0, self::POLYGON => 0, self::FACE => 0];

    /** @var list<array{name: string, points: int, triangles: int}> */
    public array $surfaces = [];

    /** @var array<array-key, int> */
    private array $layers = [];

    /** @var array<array-key, true> */
    private array $attributes = [];

    public ?string $crs = null;
    public ?string $unit = null;

    /** @var array{float, float, float, float, float, float} least and greatest of three axes */
    private array $box = [\INF, \INF, \INF, -\INF, -\INF, -\INF];

    /** @var list<string> */
    private array $warnings = [];

    private int $more = 0;

    public function __construct(public string $kind)
    {
    }

    public function count(string $what, int $by = 1): void
    {
        $this->counts[$what] += $by;
    }

    public function counted(string $what): int
    {
        return $this->counts[$what];
    }

    /** One feature, or none: a layer is listed when it is empty, too. */
    public function layer(string $name, int $by = 1): void
    {
        $name = mb_scrub($name, 'UTF-8');
        $this->layers[$name] = ($this->layers[$name] ?? 0) + $by;
    }

    public function attribute(string $name): void
    {
        $this->attributes[mb_scrub($name, 'UTF-8')] = true;
    }

    public function warn(string $words): void
    {
        if (\count($this->warnings) < self::MOST_WARNINGS) {
            $this->warnings[] = mb_scrub($words, 'UTF-8');
        } else {
            ++$this->more;
        }
    }

    public function reach(float $x, float $y, ?float $z = null): void
    {
        if (!is_finite($x) || !is_finite($y)) {
            return;
        }
        if ($x < $this->box[0]) {
            $this->box[0] = $x;
        }
        if ($x > $this->box[3]) {
            $this->box[3] = $x;
        }
        if ($y < $this->box[1]) {
            $this->box[1] = $y;
        }
        if ($y > $this->box[4]) {
            $this->box[4] = $y;
        }
        if (null !== $z && is_finite($z)) {
            if ($z < $this->box[2]) {
                $this->box[2] = $z;
            }
            if ($z > $this->box[5]) {
                $this->box[5] = $z;
            }
        }
    }

    /** @return array<string, mixed> as mensura-look/1 */
    public function toArray(): array
    {
        $layers = [];
        foreach ($this->layers as $name => $count) {
            $layers[] = ['name' => (string) $name, 'count' => $count];
        }
        $hasPlan = $this->box[0] <= $this->box[3];
        $hasHeight = $this->box[2] <= $this->box[5];
        $extent = $hasPlan ? [
            $this->box[0], $this->box[1], $hasHeight ? $this->box[2] : null,
            $this->box[3], $this->box[4], $hasHeight ? $this->box[5] : null,
        ] : null;
        $warnings = 0 === $this->more ? $this->warnings : [...$this->warnings, \sprintf('and %d more of the kind', $this->more)];

        return ['format' => 'mensura-look/1', 'kind' => $this->kind] + $this->counts + [
            'surfaces' => $this->surfaces, 'layers' => $layers, 'attributes' => array_map(strval(...), array_keys($this->attributes)),
            'crs' => $this->crs, 'unit' => $this->unit, 'extent' => $extent, 'warnings' => $warnings,
        ];
    }
}
