<?php

declare(strict_types=1);

namespace Mensura\Exchange\NetworkJson;

use Mensura\Fault\UnusableInput;
use Mensura\LinearAlgebra\Dense;
use Mensura\Network\Frame;
use Mensura\Network\NetworkDefinition;
use Mensura\Network\PlaneFrame;
use Mensura\Network\Settings;
use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind;
use Mensura\Observation\Station;

/**
 * Reads a mensura-network/1 document. Every fault names its place as a JSON path.
 */
final class NetworkJsonReader
{
    private const FARTHEST = 1e8;
    private const LONGEST_SIGHT = 1e6;
    private const TALLEST = 100.0;

    /** Refraction over hot or cold ground has been measured far from 0.13, but not beyond this (common practice). */
    private const REFRACTION = 20.0;

    /** Standard deviations, metres or degrees: from below a nanometre to beyond the planet. */
    private const FINEST = 1e-10;
    private const COARSEST = 1e9;

    private bool $valuesNeeded = true;

    /** @param ?CrsFrames $crsFrames makes the frame of a system's code and a geoid file */
    public function __construct(private readonly ?CrsFrames $crsFrames = null)
    {
    }

    /**
     * @param bool $preanalysis observations may come without values
     *
     * @throws UnusableInput
     */
    public function read(string $json, bool $preanalysis = false): NetworkDefinition
    {
        $this->valuesNeeded = !$preanalysis;
        try {
            $document = json_decode($json, true, 64, \JSON_THROW_ON_ERROR);
        } catch (\JsonException $e) {
            throw new UnusableInput(
                '',
                \sprintf('not JSON (%s); a network file starts with {"format": "mensura-network/1", ...}', lcfirst($e->getMessage())),
            );
        }
        if (!\is_array($document) || 'mensura-network/1' !== ($document['format'] ?? null)) {
            throw new UnusableInput('format', 'must be "mensura-network/1"');
        }
        $stations = [];
        foreach ($this->list($document, 'stations') as $i => $station) {
            $stations[] = $this->station($this->object($station, "stations[$i]"), "stations[$i]");
        }
        $observations = [];
        foreach ($this->list($document, 'observations') as $i => $observation) {
            $observations[] = $this->observation($this->object($observation, "observations[$i]"), "observations[$i]");
        }
        if ([] === $stations) {
            throw new UnusableInput('stations', 'there are none');
        }
        if ([] === $observations) {
            throw new UnusableInput('observations', 'there are none');
        }

        return new NetworkDefinition(
            $this->frame($document['frame'] ?? null), $this->settings($document['settings'] ?? []), $stations,
            $observations,
        );
    }

    private function frame(mixed $frame): Frame
    {
        $type = \is_array($frame) ? $frame['type'] ?? null : null;
        if ('plane' === $type) {
            return new PlaneFrame();
        }
        if ('crs' !== $type) {
            throw new UnusableInput('frame.type', 'must be "plane" or "crs"');
        }
        if (!\is_string($frame['crs'] ?? null)) {
            throw new UnusableInput('frame.crs', 'must be a code such as "EPSG:25830"');
        }
        if (isset($frame['geoid']) && !\is_string($frame['geoid'])) {
            throw new UnusableInput('frame.geoid', 'must be the path of a geoid file');
        }
        if (null === $this->crsFrames) {
            throw new UnusableInput('frame.crs', 'coordinate systems are not available here');
        }

        return $this->crsFrames->frame($frame['crs'], $frame['geoid'] ?? null);
    }

    private function settings(mixed $settings): Settings
    {
        $settings = $this->object($settings, 'settings');
        $sigma = $this->object($settings['sigma'] ?? [], 'settings.sigma');
        $centring = $this->object($settings['centring'] ?? [], 'settings.centring');
        $confidence = $this->number($settings, 'confidence', 'settings') ?? 0.95;
        if ($confidence <= 0.0 || $confidence >= 1.0) {
            throw new UnusableInput('settings.confidence', \sprintf('must lie between 0 and 1, not %s', $confidence));
        }
        $iterations = $this->number($settings, 'maxIterations', 'settings') ?? 15;
        if ($iterations < 1 || $iterations > 1000) {
            throw new UnusableInput('settings.maxIterations', 'must lie between 1 and 1000');
        }
        $distance = $sigma['distance'] ?? null;
        if (null !== $distance) {
            if (!\is_array($distance)
                || !isset($distance[0])
                || !\is_int($distance[0])
                && !\is_float($distance[0])
                || isset($distance[1])
                && !\is_int($distance[1])
                && !\is_float($distance[1])
            ) {
                throw new UnusableInput('settings.sigma.distance', 'must be [metres, parts per million]');
            }
            $distance = [(float) $distance[0], (float) ($distance[1] ?? 0.0)];
            if ($distance[0] < 0.0 || $distance[1] < 0.0) {
                throw new UnusableInput('settings.sigma.distance', 'must not be negative');
            }
        }
        $refraction = $this->number($settings, 'refraction', 'settings') ?? 0.13;
        if (abs($refraction) > self::REFRACTION) {
            throw new UnusableInput(
                'settings.refraction',
                \sprintf('must lie between -%1$s and %1$s, a part of the curvature of the earth', self::REFRACTION),
            );
        }
        $scale = $settings['scaleByVarianceFactor'] ?? false;
        if (!\is_bool($scale)) {
            throw new UnusableInput('settings.scaleByVarianceFactor', 'must be true or false');
        }

        return new Settings(
            $confidence,
            (int) $iterations,
            $refraction,
            $this->positive($sigma, 'direction', 'settings.sigma'),
            $this->positive($sigma, 'zenith', 'settings.sigma'),
            $this->positive($sigma, 'azimuth', 'settings.sigma'),
            $this->positive($sigma, 'angle', 'settings.sigma'),
            $distance,
            $this->notNegative($centring, 'instrument', 'settings.centring'),
            $this->notNegative($centring, 'target', 'settings.centring'),
            $this->notNegative($centring, 'height', 'settings.centring'),
            $scale,
        );
    }

    /** @param array<mixed> $s */
    private function station(array $s, string $path): Station
    {
        $id = $this->name($s, 'id', $path);
        $coordinates = [];
        $sd = [];
        $fixed = [];
        $held = $s['fixed'] ?? [];
        if (!\is_array($held)) {
            throw new UnusableInput("$path.fixed", 'must be a list such as ["e","n","h"]');
        }
        foreach ($held as $component) {
            if (!\in_array($component, ['e', 'n', 'h'], true)) {
                throw new UnusableInput("$path.fixed", \sprintf('knows "e", "n" and "h", not %s', json_encode($component)));
            }
        }
        $sds = $this->object($s['sd'] ?? [], "$path.sd");
        foreach (['e', 'n', 'h'] as $component) {
            $value = $this->number($s, $component, $path);
            if (null !== $value && abs($value) > self::FARTHEST) {
                throw new UnusableInput("$path.$component", \sprintf('%s m is not a coordinate on this planet', $value));
            }
            $isFixed = \in_array($component, $held, true);
            $deviation = $this->positive($sds, $component, "$path.sd");
            if (null === $value && ($isFixed || null !== $deviation)) {
                throw new UnusableInput(
                    "$path.$component",
                    \sprintf('station "%s" is held or weighted in %s but has no value for it', $id, $component),
                );
            }
            $coordinates[] = $value;
            $sd[] = $deviation;
            $fixed[] = $isFixed;
        }

        return new Station($id, $coordinates[0], $coordinates[1], $coordinates[2], $fixed, $sd);
    }

    /** @param array<mixed> $o */
    private function observation(array $o, string $path): Observation
    {
        $type = $o['type'] ?? null;
        $kind = ObservationKind::tryFrom(\is_string($type) ? $type : '')
            ?? throw new UnusableInput("$path.type", \sprintf(
                '%s; it must be one of %s',
                null === $type ? 'is missing' : json_encode($type, \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES)
                    .' is no kind of observation',
                implode(', ', array_map(static fn (ObservationKind $k): string => $k->value, ObservationKind::cases())),
            ));
        $isAngle = ObservationKind::Angle === $kind;
        $from = $this->name($o, $isAngle ? 'at' : 'from', $path);
        $to = $this->name($o, 'to', $path);
        if (ObservationKind::Vector === $kind) {
            return $this->vector($o, $path, $from, $to);
        }
        $use = $o['use'] ?? 'full';
        if (!\in_array($use, ['full', 'aside'], true)) {
            throw new UnusableInput("$path.use", 'must be "full" or "aside"');
        }
        $value = $this->number($o, 'value', $path);
        if (null === $value && $this->valuesNeeded) {
            throw new UnusableInput("$path.value", 'is missing');
        }
        if (null !== $value) {
            $this->plausible($kind, $value, "$path.value");
        }
        $heights = [];
        foreach (['hi', 'ht'] as $key) {
            $height = $this->number($o, $key, $path) ?? 0.0;
            if (abs($height) > self::TALLEST) {
                throw new UnusableInput("$path.$key", \sprintf('%s m is not an instrument or target height', $height));
            }
            $heights[] = $height;
        }
        $set = $o['set'] ?? (ObservationKind::Direction === $kind ? '' : null);
        if (null !== $set && !\is_string($set) && !\is_int($set)) {
            throw new UnusableInput("$path.set", 'must be the name of the round');
        }

        return new Observation(
            $kind, $from, $to, $value, $this->positive($o, 'sd', $path), null === $set ? null : (string) $set,
            $isAngle ? $this->name($o, 'back', $path) : null, $heights[0], $heights[1],
            used: ['full' === $use, false, false],
        );
    }

    /** @param array<mixed> $o */
    private function vector(array $o, string $path, string $from, string $to): Observation
    {
        $components = [];
        foreach (['dx', 'dy', 'dz'] as $key) {
            $value = $this->number($o, $key, $path);
            if (null === $value && $this->valuesNeeded) {
                throw new UnusableInput("$path.$key", 'is missing');
            }
            if (abs((float) $value) > 2e7) {
                throw new UnusableInput("$path.$key", \sprintf('%s m is longer than any vector on this planet', $value));
            }
            $components[] = (float) $value;
        }
        $covariance = $o['covariance'] ?? null;
        $rows = [];
        for ($r = 0; $r < 3; ++$r) {
            for ($c = 0; $c < 3; ++$c) {
                $value = \is_array($covariance) && \is_array($covariance[$r] ?? null) ? $covariance[$r][$c] ?? null : null;
                if (!\is_int($value) && !\is_float($value) || !is_finite((float) $value)) {
                    throw new UnusableInput("$path.covariance", 'must be three rows of three numbers, square metres');
                }
                $rows[$r][$c] = (float) $value;
            }
        }
        if (!Dense::isCovariance($rows)) {
            throw new UnusableInput("$path.covariance", 'is not symmetric and positive definite');
        }
        $use = $o['use'] ?? 'full';
        if (!\is_array($use)) {
            $use = ['dx' => $use, 'dy' => $use, 'dz' => $use];
        }
        $used = [];
        foreach (['dx', 'dy', 'dz'] as $key) {
            $state = $use[$key] ?? 'full';
            if (!\in_array($state, ['full', 'aside'], true)) {
                throw new UnusableInput("$path.use", 'must be "full" or "aside", alone or per component');
            }
            $used[] = 'full' === $state;
        }

        return new Observation(ObservationKind::Vector, $from, $to, null, components: $components, covariance: $rows, used: $used);
    }

    private function plausible(ObservationKind $kind, float $value, string $path): void
    {
        switch ($kind) {
            case ObservationKind::SlopeDistance:
            case ObservationKind::HorizontalDistance:
                if ($value <= 0.0 || $value > self::LONGEST_SIGHT) {
                    throw new UnusableInput($path, \sprintf('a distance of %s m cannot be', $value));
                }
                break;
            case ObservationKind::Zenith:
                if ($value <= 0.0 || $value >= 360.0) {
                    throw new UnusableInput($path, \sprintf('a zenith angle of %s degrees cannot be', $value));
                }
                break;
            case ObservationKind::HeightDifference:
                if (abs($value) > 1e4) {
                    throw new UnusableInput($path, \sprintf('a height difference of %s m cannot be', $value));
                }
                break;
            default:
                if (abs($value) > 720.0) {
                    throw new UnusableInput($path, \sprintf('%s degrees is not an angle anyone reads', $value));
                }
        }
    }

    /**
     * @param array<mixed> $document
     *
     * @return list<mixed>
     */
    private function list(array $document, string $key): array
    {
        $list = $document[$key] ?? null;
        if (!\is_array($list) || !array_is_list($list)) {
            throw new UnusableInput($key, 'must be a list');
        }

        return $list;
    }

    /** @return array<mixed> */
    private function object(mixed $value, string $path): array
    {
        if (!\is_array($value) || [] !== $value && array_is_list($value)) {
            throw new UnusableInput($path, 'must be an object');
        }

        return $value;
    }

    /** @param array<mixed> $o */
    private function name(array $o, string $key, string $path): string
    {
        $name = $o[$key] ?? null;
        if (\is_int($name)) {
            $name = (string) $name;
        }
        if (!\is_string($name) || '' === trim($name)) {
            throw new UnusableInput("$path.$key", 'must be a station name');
        }

        return $name;
    }

    /** @param array<mixed> $o */
    private function notNegative(array $o, string $key, string $path): float
    {
        $value = $this->number($o, $key, $path) ?? 0.0;
        if ($value < 0.0) {
            throw new UnusableInput("$path.$key", 'must not be negative');
        }

        return $value;
    }

    /** @param array<mixed> $o */
    private function number(array $o, string $key, string $path): ?float
    {
        $value = $o[$key] ?? null;
        if (null === $value) {
            return null;
        }
        if (!\is_int($value) && !\is_float($value) || !is_finite((float) $value)) {
            throw new UnusableInput("$path.$key", 'must be a finite number');
        }

        return (float) $value;
    }

    /** @param array<mixed> $o */
    private function positive(array $o, string $key, string $path): ?float
    {
        $value = $this->number($o, $key, $path);
        if (null !== $value && $value <= 0.0) {
            throw new UnusableInput("$path.$key", \sprintf('must be positive, not %s', $value));
        }
        if (null !== $value && ($value < self::FINEST || $value > self::COARSEST)) {
            throw new UnusableInput("$path.$key", \sprintf('%s is not a standard deviation anyone has', $value));
        }

        return $value;
    }
}
