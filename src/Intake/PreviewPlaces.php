<?php

declare(strict_types=1);

namespace App\Intake;

use App\Intake\View\PlacedPoint;
use App\Survey\ImportedObservation;
use Mensura\Exchange\Delimited\PointRecord;

/** Where a file's points and observations lie, as far as it or the project can say. */
final class PreviewPlaces
{
    /** @var list<PlacedPoint> */
    public array $points = [];

    /** @var array<string, int> */
    private array $number = [];

    /** @var array<string, array{int, int}> pairs of points that observations join */
    private array $rays = [];

    /**
     * @param list<PointRecord>             $records
     * @param iterable<ImportedObservation> $observations
     */
    public function __construct(array $records, iterable $observations, KnownPlaces $known)
    {
        foreach ($records as $r) {
            $this->place($r->name, $r->e, $r->n, $known->has($r->name));
        }
        foreach ($observations as $o) {
            [$e, $n] = $known->at($o->from);
            $a = $this->place($o->from, $e, $n, true);
            [$e, $n] = $known->at($o->to);
            $b = $this->place($o->to, $e, $n, true);
            if (null !== $a && null !== $b) {
                $this->rays["$a $b"] = [$a, $b];
            }
        }
    }

    /** @return ?list<float> least easting and northing, greatest easting and northing, metres */
    public function extent(): ?array
    {
        $e = array_map(static fn (PlacedPoint $p): float => $p->e, $this->points);
        $n = array_map(static fn (PlacedPoint $p): float => $p->n, $this->points);

        return [] === $e || [] === $n ? null : [min($e), min($n), max($e), max($n)];
    }

    /** @return list<PlacedPoint> at most so many: the first where observations join them, else spread over all */
    public function shown(int $most): array
    {
        $step = [] === $this->rays ? (int) ceil(\count($this->points) / $most) : 1;
        if ($step <= 1) {
            return \array_slice($this->points, 0, $most);
        }

        return array_values(array_filter($this->points, static fn (int $i): bool => 0 === $i % $step, \ARRAY_FILTER_USE_KEY));
    }

    /** @return list<list<int>> of the first points */
    public function rays(int $points): array
    {
        return array_values(array_filter($this->rays, static fn (array $r): bool => $r[0] < $points && $r[1] < $points));
    }

    private function place(string $name, ?float $e, ?float $n, bool $isKnown): ?int
    {
        if (!isset($this->number[$name]) && null !== $e && null !== $n) {
            $this->number[$name] = \count($this->points);
            $this->points[] = new PlacedPoint($name, $e, $n, $isKnown);
        }

        return $this->number[$name] ?? null;
    }
}
