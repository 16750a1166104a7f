<?php

declare(strict_types=1);

namespace Mensura\Exchange\RoverFeatures;

use Mensura\Exchange\Rinex\ObservationFile;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\GpsTime;

/**
 * Features of a mapping rover as GeoJSON (RFC 7946) with what was received for every position: in the file itself, or in a RINEX
 * file it names. docs/formats.md, "Rover features".
 */
final class RoverFeatures
{
    public const FORMAT = 'mensura-rover-features/1';

    /** What a rover's own position is worth where it does not say, metres in plan (common practice). */
    private const SD = 3.0;

    public string $name = '';

    /** Name of the RINEX file with the observations; empty where they stand with the positions. */
    public string $rinex = '';

    /** Of the antenna above the ground, metres. */
    public float $antennaHeight = 0.0;

    /** @var list<RoverFeature> */
    public array $features = [];

    /** Observations that stand with the positions; null where a RINEX file has them. */
    public ?ObservationFile $raw = null;

    /** @throws UnusableInput naming the JSON path */
    public static function read(string $json, string $file): self
    {
        $data = json_decode($json, true, 64);
        if (!\is_array($data) || self::FORMAT !== ($data['format'] ?? null) || !\is_array($data['features'] ?? null)) {
            throw new UnusableInput($file, \sprintf('is no file of rover features: it is not GeoJSON with "format": "%s"', self::FORMAT));
        }
        $self = new self();
        $self->name = \is_string($data['name'] ?? null) ? $data['name'] : '';
        $self->rinex = \is_string($data['rinex'] ?? null) ? $data['rinex'] : '';
        $self->antennaHeight = is_numeric($data['antennaHeight'] ?? null) ? (float) $data['antennaHeight'] : 0.0;
        $epochs = [];
        foreach ($data['features'] as $i => $feature) {
            $self->features[] = self::feature(\is_array($feature) ? $feature : [], "$file features[$i]", $epochs);
        }
        if ([] === $self->features) {
            throw new UnusableInput("$file features", 'holds no feature');
        }
        if ([] !== $epochs) {
            $self->raw = self::observations($epochs);
        } elseif ('' === $self->rinex) {
            throw new UnusableInput($file, 'has neither observations with its positions ("raw") nor the name of a RINEX file ("rinex")');
        }

        return $self;
    }

    /** @return list<GpsTime> of all positions, in time, each once */
    public function times(): array
    {
        $all = [];
        foreach ($this->features as $feature) {
            foreach ($feature->positions as $p) {
                $all[(string) $p->time] = $p->time;
            }
        }
        usort($all, static fn (GpsTime $a, GpsTime $b): int => $a->since($b) <=> 0.0);

        return $all;
    }

    /**
     * @param array<mixed>                                                    $feature
     * @param array<string, array{GpsTime, array<string, array<array-key, float>>}> $epochs filled here
     */
    private static function feature(array $feature, string $where, array &$epochs): RoverFeature
    {
        $kind = $feature['geometry']['type'] ?? null;
        $properties = $feature['properties'] ?? null;
        if (!\in_array($kind, RoverFeature::KINDS, true)) {
            throw new UnusableInput("$where.geometry.type", 'is none of Point, LineString and Polygon');
        }
        if (!\is_array($properties) || !\is_array($properties['positions'] ?? null) || [] === $properties['positions']) {
            throw new UnusableInput("$where.properties.positions", 'holds no position');
        }
        $positions = [];
        $most = 0;
        foreach ($properties['positions'] as $k => $p) {
            $at = "$where.properties.positions[$k]";
            $time = self::time(\is_array($p) ? $p['time'] ?? null : null, $at);
            foreach (['lon', 'lat', 'h'] as $key) {
                if (!is_numeric($p[$key] ?? null)) {
                    throw new UnusableInput("$at.$key", 'is not a number');
                }
            }
            $vertex = \is_int($p['vertex'] ?? null) ? $p['vertex'] : 0;
            $most = max($most, $vertex);
            $positions[] = new RoverPosition(
                $time, $vertex, (float) $p['lat'], (float) $p['lon'], (float) $p['h'],
                is_numeric($p['sd'] ?? null) ? (float) $p['sd'] : self::SD,
            );
            $raw = [];
            foreach (\is_array($p['raw'] ?? null) ? $p['raw'] : [] as $satellite => $values) {
                if (1 !== preg_match('/^[GEC][0-9]{2}$/', (string) $satellite) || !\is_array($values)) {
                    throw new UnusableInput("$at.raw", 'is by satellite, as {"G05": {"C1C": 23456789.123}}');
                }
                $raw[(string) $satellite] = array_map(floatval(...), array_filter($values, is_numeric(...)));
            }
            if ([] !== $raw) {
                $epochs[(string) $time] = [$time, $raw];
            }
        }
        $id = $feature['id'] ?? $properties['id'] ?? '';

        return new RoverFeature(
            \is_scalar($id) ? (string) $id : '', $kind, \is_string($properties['code'] ?? null) ? $properties['code'] : '',
            \is_array($properties['attributes'] ?? null) ? $properties['attributes'] : [], $most + 1, $positions,
        );
    }

    private static function time(mixed $text, string $where): GpsTime
    {
        if (!\is_string($text) || 1 !== preg_match('/^gps:(\d{4})-(\d\d)-(\d\d)T(\d\d):(\d\d):(\d\d(?:\.\d+)?)$/', $text, $m)) {
            throw new UnusableInput("$where.time", 'is an instant of GPS time, as gps:2031-05-04T12:00:05');
        }

        return GpsTime::civil((int) $m[1], (int) $m[2], (int) $m[3], (int) $m[4], (int) $m[5], (float) $m[6]);
    }

    /** @param array<string, array{GpsTime, array<string, array<array-key, float>>}> $epochs */
    private static function observations(array $epochs): ObservationFile
    {
        uasort($epochs, static fn (array $a, array $b): int => $a[0]->since($b[0]) <=> 0.0);
        $file = new ObservationFile();
        $file->marker = 'rover';
        foreach ($epochs as [, $satellites]) {
            foreach ($satellites as $satellite => $values) {
                foreach (array_keys($values) as $type) {
                    $system = $satellite[0];
                    if (!\in_array((string) $type, $file->types[$system] ?? [], true)) {
                        $file->types[$system][] = (string) $type;
                    }
                }
            }
        }
        foreach ($epochs as [$time, $satellites]) {
            $file->times[] = $time;
            foreach ($satellites as $satellite => $values) {
                $file->satellite[] = (string) $satellite;
                $file->valueStart[] = \count($file->value);
                foreach ($file->types[$satellite[0]] as $type) {
                    $file->value[] = $values[$type] ?? \NAN;
                    $file->lossOfLock[] = 0;
                }
            }
            $file->epochStart[] = \count($file->satellite);
        }

        return $file;
    }
}
